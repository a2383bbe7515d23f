import { api, type AlikeGroupRow, type RecordDetail } from '@osier/contract';
import { mergeFields } from '@osier/core/matching';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Radio } from 'antd';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { FieldView } from '../../parts/field-editor/FieldView';
import { Mark } from '../../parts/Mark';
import { DraftConflict, isOutdated } from '../../parts/record-draft/DraftConflict';
import { FieldsHead } from '../../parts/record-draft/FieldsHead';
import { useRecordDraft } from '../../parts/record-draft/use-record-draft';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { SideBySide } from '../../parts/SideBySide';
import { useHouse } from '../../parts/use-house';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import './record.css';
import { tagOfPair } from '../../parts/Compare';
import { TakeFields } from './TakeFields';
import { catalogueWords as wording } from './words';

/** Tags that belong to one record or to the shelf, and are not taken from another. */
const OWN = /^(00[1358]|LDR|040|85[2-5]|86[3-8]|87[678])$/;

/** A group of look-alikes: choose the record that stays, take from the others what it lacks, merge; or say that they are two titles. */
export function MergePiece({
  group,
  onBack,
  onDone,
}: {
  group: AlikeGroupRow;
  onBack: () => void;
  onDone: () => void;
}) {
  const details = useQueries({
    queries: group.records.map((r) => ({
      queryKey: [`/records/${r.id}`],
      queryFn: () => call(api.records.read, { params: { id: r.id } }),
    })),
  });
  const records = details.flatMap((d) => d.data ?? []);
  if (records.length < group.records.length)
    return <p role="alert">{details.find((d) => d.error)?.error?.message ?? ''}</p>;
  return <Merging group={group} records={records} onBack={onBack} onDone={onDone} />;
}

/** The record that most hangs on, and of those the one with most fields. */
const likelyBase = (records: readonly RecordDetail[]): RecordDetail =>
  [...records].sort(
    (a, b) => copiesOf(b) - copiesOf(a) || b.marc.fields.length - a.marc.fields.length || a.id - b.id,
  )[0]!;
const countOf = (n: number): string =>
  n === 0 ? wording.noCopies : n === 1 ? wording.n1Copy : wording.copies2(n);
const copiesOf = (r: RecordDetail): number => r.holdings.reduce((n, h) => n + h.copies.length, 0);

function Merging({
  group,
  records,
  onBack,
  onDone,
}: {
  group: AlikeGroupRow;
  records: readonly RecordDetail[];
  onBack: () => void;
  onDone: () => void;
}) {
  const [baseId, setBase] = useState(() => likelyBase(records).id);
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  const [isReviewing, setReviewing] = useState(false);
  const mayEdit = useMay('edit records');
  const house = useHouse();
  const base = records.find((r) => r.id === baseId) ?? records[0]!;
  const lost = records.filter((r) => r.id !== base.id && !out.has(r.id));
  const key = `merge ${[base, ...lost].map((r) => r.id).join(' ')}`;
  const edit = useRecordDraft(key, {
    version: base.version,
    marc: base.marc,
    findings: base.findings,
    title: wording.mergingOf(base.brief.title),
    path: `/catalogue?show=alike&group=${group.records[0]?.id ?? ''}`,
  });
  const columns = useMemo(
    () =>
      [base, ...records.filter((r) => r.id !== base.id)].map((r) => ({
        name: wording.record2(r.id),
        record: r.marc,
      })),
    [base, records],
  );
  const flip = (id: number) =>
    setOut((before) => {
      const next = new Set(before);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <div className="stack record-piece">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <div className="piece-head">
        <h2>{wording.oneTitleOrSeveral}</h2>
        {mayEdit ? (
          <Button
            type="primary"
            data-key="m"
            disabled={lost.length === 0 || isOutdated(edit.draft, base)}
            onClick={() => setReviewing(true)}
          >
            {wording.mergeRecords(lost.length + 1)}
          </Button>
        ) : null}
      </div>
      <ul className="whys">
        {group.pairs.map((p) => (
          <li key={`${p.a} ${p.b}`}>
            <Mark kind={p.sure ? 'caution' : 'information'} /> {wording.pairWhy(p.a, p.b, p.why)}
          </li>
        ))}
      </ul>
      <div className="merge-choices" role="radiogroup" aria-label={wording.recordThatIsKept}>
        {records.map((r) => (
          <div key={r.id} className="row">
            <Radio name="base" checked={r.id === base.id} disabled={!mayEdit} onChange={() => setBase(r.id)}>
              {wording.keep(r.id)}
            </Radio>
            <Link to={`/catalogue/${r.id}`}>{r.brief.title}</Link>
            <span className="faded">
              {[r.brief.author, r.brief.year, countOf(copiesOf(r))].filter(Boolean).join(' · ')}
            </span>
            {r.id !== base.id && records.length > 2 ? (
              <Checkbox checked={!out.has(r.id)} onChange={() => flip(r.id)}>
                {wording.mergeThisOne}
              </Checkbox>
            ) : null}
          </div>
        ))}
      </div>
      <SideBySide columns={columns} />
      {mayEdit ? (
        <>
          {lost.map((r) => (
            <section key={r.id} aria-label={wording.whatDiffersIn(r.id)}>
              <div className="row spread">
                <h3>{wording.whatDiffersIn(r.id)}</h3>
                {house ? (
                  <Button size="small" onClick={() => edit.become(mergeFields(edit.marc, r.marc, house))}>
                    {wording.takeAllItLacks}
                  </Button>
                ) : null}
              </div>
              <TakeFields
                from={r.marc}
                edit={edit}
                verb={wording.take}
                same={wording.nothingMoreToTake}
                isTakeable={(pair) => pair.change !== 'new' && !OWN.test(tagOfPair(pair))}
              />
            </section>
          ))}
          <FieldsHead edit={edit} mayEdit>
            <h3>{wording.whatItBecomes(base.id)}</h3>
          </FieldsHead>
          <DraftConflict edit={edit} now={base} />
          <FieldView key={base.id} record={edit.marc} findings={edit.findings} edit={edit} />
          <Apart pairs={group.pairs} onDone={onDone} />
        </>
      ) : null}
      {isReviewing ? (
        <MergeSheet
          body={{
            base: base.id,
            version: edit.draft?.version ?? base.version,
            // The sheet tells which errors it would be saved with.
            withErrors: true,
            lost: lost.map((r) => r.id),
            marc: edit.marc,
          }}
          onClose={() => setReviewing(false)}
          onDone={() => {
            edit.set(null);
            onDone();
          }}
        />
      ) : null}
    </div>
  );
}

/** Says of a pair that it is two titles, and why. */
function Apart({ pairs, onDone }: { pairs: AlikeGroupRow['pairs']; onDone: () => void }) {
  const [reason, setReason] = useState('');
  const { say, complain } = useShell();
  const apart = async (a: number, b: number) => {
    try {
      const done = await call(api.desk.keepApart, { body: { a, b, reason } });
      say(done.sentence, done.entry);
      onDone();
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="row">
      <Input
        style={{ maxWidth: 320 }}
        aria-label={wording.whyTwoTitles}
        placeholder={wording.whyTwoTitles}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      {pairs.map((p) => (
        <Button key={`${p.a} ${p.b}`} onClick={() => void apart(p.a, p.b)}>
          {pairs.length === 1 ? wording.twoTitles : wording.areTwoTitles(p.a, p.b)}
        </Button>
      ))}
    </div>
  );
}

type MergeBody = Parameters<typeof call<typeof api.desk.merge>>[1]['body'];

function MergeSheet({ body, onClose, onDone }: { body: MergeBody; onClose: () => void; onDone: () => void }) {
  const { say } = useShell();
  const page = (from: number) => call(api.desk.reviewMerge, { body: { ...body, from } });
  const review = useQuery({
    queryKey: ['review', 'merge records', body.base, body.lost],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
  });
  return (
    <ReviewSheet
      title={wording.mergeRecords(body.lost.length + 1)}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onAnew={review.refetch}
      onMore={page}
      onDo={async (_, token) => {
        const done = await call(api.desk.merge, { body: { ...body, token } });
        say(done.sentence, done.entry);
        onDone();
        await refresh();
      }}
    />
  );
}
