import { api, type RecordDetail } from '@osier/contract';
import { call } from '../../api/call';
import { Button } from 'antd';
import { memo, useDeferredValue, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { FieldView } from '../../parts/field-editor/FieldView';
import { Mark } from '../../parts/Mark';
import { PageButtons } from '../../parts/PageButtons';
import { PutOnPile } from '../../parts/PutOnPile';
import { DraftConflict } from '../../parts/record-draft/DraftConflict';
import { DraftNote } from '../../parts/record-draft/DraftNote';
import { FieldsHead } from '../../parts/record-draft/FieldsHead';
import { draftNow, useRecordDraft } from '../../parts/record-draft/use-record-draft';
import { useSaveKey } from '../../parts/record-draft/use-save-key';
import { useAddress } from '../../parts/use-address';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { EntryLine } from '../daybook/EntryLine';
import { LinksOfRecord } from './LinksOfRecord';
import { Reading } from './Reading';
import { RecordMenu } from './RecordMenu';
import './record.css';
import { SaveCheck } from './SaveCheck';
import { HoldingsOfRecord } from './shelf/Shelf';
import { Versions } from './Versions';
import { catalogueWords as wording } from './words';

const VIEWS = ['fields', 'reading', 'versions'] as const;
type View = (typeof VIEWS)[number];
const VIEW_NAMES: readonly (readonly [View, string])[] = [
  ['fields', wording.fields],
  ['reading', wording.reading],
  ['versions', wording.versions],
];

/** A record: what stands on the shelf, its fields to read and correct, its versions, what happened to it. */
export function RecordPiece({ id, copy, onBack }: { id: number; copy: number | null; onBack: () => void }) {
  const { data: r, error } = useApi(api.records.read, { params: { id } });
  const key = String(id);
  const edit = useRecordDraft(key, r ? { ...r, title: r.brief.title, path: `/catalogue/${id}` } : null);
  const navigate = useNavigate();
  useEffect(() => {
    // The number of a merged record leads to the one that was kept.
    if (r && r.id !== id) void navigate(`/catalogue/${r.id}`, { replace: true });
  }, [r, id, navigate]);
  const { draft } = edit;
  const [query, changeAddress] = useAddress();
  const view = VIEWS.find((v) => v === query.get('view')) ?? 'fields';
  const { say, complain } = useShell();
  const mayEdit = useMay('edit records');
  const mayPile = useMay('keep piles');
  const [piling, setPiling] = useState(false);
  /** The errors with which the record would be saved. */
  const [errors, setErrors] = useState<readonly string[]>([]);
  const discard = () => {
    edit.set(null);
    setErrors([]);
  };
  const save = async (withErrors = false) => {
    // A field that was open has just been kept: what is saved is the draft as it is now.
    const now = draftNow(key);
    if (!now) return say(wording.thereIsNothingToSave);
    try {
      const { version, marc } = now;
      const done = await call(api.records.save, { params: { id }, body: { version, marc, withErrors } });
      discard();
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      const problem = e instanceof RequestProblem ? e.problem : null;
      const wrong = problem?.fields?.filter((f) => f.field === 'withErrors') ?? [];
      if (wrong.length) return setErrors(wrong.map((f) => f.message));
      complain(problemText(e));
      // What somebody else saved meanwhile is shown beside what was typed.
      if (problem?.status === 409) await refresh();
    }
  };
  useSaveKey(() => void save());
  if (error) return <p role="alert">{error.message}</p>;
  if (!r) return null;
  const hasLinks = r.marc.fields.some((f) => f.tag === '856');
  const pages = (
    <PageButtons
      label={wording.show}
      pages={VIEW_NAMES}
      chosen={view}
      onChoose={(next: View) => changeAddress({ view: next === 'fields' ? undefined : next })}
    />
  );
  return (
    <div className="stack record-piece">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <div className="piece-head">
        <div>
          <h2>
            <bdi>{r.brief.title}</bdi>
          </h2>
          <p className="faded">
            <bdi>{r.brief.author}</bdi>
            {wording.record(
              [r.brief.publisher, r.brief.year]
                .filter(Boolean)
                .map((x) => ` · ${x}`)
                .join(''),
              r.id,
              r.brief.material,
            )}
          </p>
          {r.suppressed ? (
            <p>
              <Mark kind="caution" /> {wording.thePublicDoesNotSeeIt}
            </p>
          ) : null}
        </div>
        <RecordMenu
          id={id}
          version={r.version}
          isSuppressed={r.suppressed}
          onPile={mayPile ? () => setPiling(true) : undefined}
        />
      </div>
      {piling ? (
        <PutOnPile search={{ q: wording.record2(id) }} count={1} onClose={() => setPiling(false)} />
      ) : null}
      <HoldingsOfRecord record={r} copy={copy} />
      {hasLinks ? <LinksOfRecord id={id} mayTry={mayEdit} /> : null}
      {errors.length ? (
        <SaveCheck
          alike={[]}
          problems={errors}
          onCancel={() => setErrors([])}
          onSave={() => void save(true)}
        />
      ) : null}
      {draft ? <DraftNote draft={draft} onSave={() => void save()} onDiscard={discard} /> : null}
      <DraftConflict edit={edit} now={r} />
      {view === 'fields' ? (
        <FieldsHead edit={edit} mayEdit={mayEdit}>
          {pages}
        </FieldsHead>
      ) : (
        pages
      )}
      {view === 'reading' ? (
        <Reading record={edit.marc} headings={r.headings} />
      ) : view === 'versions' ? (
        <Versions id={id} now={edit.marc} edit={mayEdit ? edit : undefined} />
      ) : (
        <>
          <FieldView
            record={edit.marc}
            findings={edit.findings}
            takenIntoHoldings={r.holdings.length > 0}
            edit={mayEdit ? edit : undefined}
          />
          <HeadingsOfRecord headings={r.headings} />
        </>
      )}
      <h3>{wording.history}</h3>
      <div className="today-done" style={{ background: 'var(--sheet)', border: '1px solid var(--line)' }}>
        {r.history.map((e) => (
          <EntryLine key={e.id} entry={e} />
        ))}
      </div>
    </div>
  );
}

const NONE: RecordDetail['headings'] = [];

/** The headings of a record, which lead on; they stand below its fields and are drawn behind them. */
function HeadingsOfRecord({ headings }: { headings: RecordDetail['headings'] }) {
  return <HeadingLinks headings={useDeferredValue(headings, NONE)} />;
}

const HeadingLinks = memo(function HeadingLinks({ headings }: { headings: RecordDetail['headings'] }) {
  if (headings.length === 0) return null;
  return (
    <p className="faded">
      {wording.headings}{' '}
      {headings.map((h, i) => (
        <span key={h.id}>
          {i ? ' · ' : ''}
          <Link to={`/headings/${h.id}`}>{h.text}</Link>
        </span>
      ))}
    </p>
  );
});
