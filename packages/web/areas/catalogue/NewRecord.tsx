import { api, type AlikeRow } from '@osier/contract';
import { briefOf, readIsbn } from '@osier/core/access';
import { begunRecord, lackingOf, promptsOf, recordLike, type Starter } from '@osier/core/editing';
import { dataFields, field, withField, type MarcRecord } from '@osier/core/marc';
import { Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { FieldView } from '../../parts/field-editor/FieldView';
import { FieldsHead } from '../../parts/record-draft/FieldsHead';
import { draftNow, useRecordDraft } from '../../parts/record-draft/use-record-draft';
import { useSaveKey } from '../../parts/record-draft/use-save-key';
import { useShell } from '../../shell/shell-store';
import { SaveCheck } from './SaveCheck';
import './record.css';
import { catalogueWords as wording } from './words';

const today = () => new Date().toISOString().slice(0, 10);
const NO_STARTER: Starter = {
  name: '',
  leader: '00000nam a2200000 i 4500',
  fixed: '',
  physical: [],
  fields: [],
};

/** From what a new record is begun: a starter by its key, another record, an ISBN that was scanned. */
export interface Beginning {
  readonly starter: string | null;
  readonly like: number | null;
  readonly isbn: string | null;
}

/** A record that is being made: what a starter asks for is filled in, then it is saved as one. */
export function NewRecord({ beginning, onBack }: { beginning: Beginning; onBack: () => void }) {
  const { data: starters } = useApi(api.starters.list);
  const { data: other } = useApi(
    api.records.read,
    beginning.like ? { params: { id: beginning.like } } : null,
  );
  if (!starters || (beginning.like && !other)) return null;
  const starter = starters.find((s) => s.key === (beginning.starter ?? 'book'))?.starter ?? NO_STARTER;
  return (
    <Making
      key={JSON.stringify(beginning)}
      beginning={beginning}
      starter={beginning.like ? NO_STARTER : starter}
      like={other?.marc ?? null}
      onBack={onBack}
    />
  );
}

/** The key of the draft of a new record: one for each way in which it can be begun. */
const keyOf = ({ starter, like, isbn }: Beginning): string =>
  `new ${like ?? starter ?? 'book'} ${isbn ?? ''}`.trim();
const pathOf = ({ starter, like, isbn }: Beginning): string =>
  `/catalogue/new?${new URLSearchParams({
    ...(starter && { starter }),
    ...(like && { like: String(like) }),
    ...(isbn && { isbn }),
  }).toString()}`;

function Making({
  beginning,
  starter,
  like,
  onBack,
}: {
  beginning: Beginning;
  starter: Starter;
  like: MarcRecord | null;
  onBack: () => void;
}) {
  const navigate = useNavigate();
  const { say, complain } = useShell();
  const key = keyOf(beginning);
  const path = pathOf(beginning);
  const begun = useMemo(() => {
    const record = like ? recordLike(like, today()) : begunRecord(starter, today(), 'eng');
    const isbn = readIsbn(beginning.isbn ?? '')?.isbn13;
    return isbn ? withField(record, field('020', '  ', 'a', isbn)) : record;
  }, [starter, like, beginning.isbn]);
  const kind = like ? wording.likeAnother : wording.newOf(starter.name.toLowerCase() || wording.aRecord);
  const saved = { version: 0, marc: begun, findings: [], title: kind, path, isNew: true };
  const edit = useRecordDraft(key, saved);
  const [asking, setAsking] = useState<{ alike: readonly AlikeRow[]; problems: readonly string[] } | null>(
    null,
  );
  const prompts = useMemo(() => promptsOf(starter, edit.marc), [starter, edit.marc]);
  useEffect(() => {
    // The first thing that is asked for is opened; what was begun before is left as it was.
    const [first] = prompts;
    if (!draftNow(key) && first) edit.beginField(first.asked, first.at);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the record is begun
  }, []);
  const title = dataFields(edit.marc, '245').length ? briefOf(edit.marc).title : '';
  const lackingNow = lackingOf(starter, edit.marc);
  // What is only not typed yet is no finding; the control number is given when it is saved.
  const findings = edit.findings.filter(
    (f) =>
      f.rule !== 'control-number' && !(lackingNow.length && (f.where.field < 0 || f.where.tag === '008')),
  );
  const send = async (despite: readonly number[], withErrors: boolean) => {
    const marc = draftNow(key)?.marc ?? edit.marc;
    try {
      const done = await call(api.desk.make, { body: { marc, despite, withErrors } });
      edit.set(null);
      say(done.sentence, done.entry);
      await refresh();
      void navigate(`/catalogue/${done.id}`);
    } catch (e) {
      complain(problemText(e));
    }
  };
  const save = async () => {
    const now = draftNow(key);
    if (!now) return say(wording.nothingTypedYet);
    try {
      const { rows } = await call(api.desk.likely, { body: { marc: now.marc } });
      const errors = edit.findings.filter((f) => f.severity === 'error').map((f) => f.message);
      const lacking = lackingOf(starter, now.marc);
      const problems = [...errors, ...(lacking.length ? [wording.stillLacking(lacking.join(', '))] : [])];
      if (rows.length || problems.length) setAsking({ alike: rows, problems });
      else await send([], false);
    } catch (e) {
      complain(problemText(e));
    }
  };
  useSaveKey(() => void save());
  return (
    <div className="stack record-piece">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <div className="piece-head">
        <div>
          <h2>
            <bdi>{title || kind}</bdi>
          </h2>
          <p className="faded">{title ? kind : wording.enterOpensAField}</p>
        </div>
        <span className="row">
          {edit.draft ? (
            <Button
              onClick={() => {
                edit.set(null);
                setAsking(null);
              }}
            >
              {wording.discard}
            </Button>
          ) : null}
          <Button type="primary" onClick={() => void save()}>
            {wording.saveNewRecord} <kbd>{wording.ctrlS}</kbd>
          </Button>
        </span>
      </div>
      {asking ? (
        <SaveCheck
          {...asking}
          onCancel={() => setAsking(null)}
          onSave={() =>
            void send(
              asking.alike.map((a) => a.record),
              true,
            )
          }
        />
      ) : null}
      <FieldsHead edit={edit} mayEdit />
      <FieldView key={key} record={edit.marc} findings={findings} edit={edit} prompts={prompts} />
    </div>
  );
}
