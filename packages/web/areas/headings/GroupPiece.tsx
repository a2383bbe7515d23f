import { api, type LookAlikeGroup, type SeenHeadings } from '@osier/contract';
import { call } from '../../api/call';
import { codeName } from '@osier/core/format';
import { fullestForm, SAME } from '@osier/core/headings';
import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Radio } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Mark } from '../../parts/Mark';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { headingsWords as wording } from './words';

const VERDICT_MARK = { same: 'clear', perhaps: 'information', different: 'caution' } as const;

/** What the records of a heading show of it: years, languages, roles; and its sources. */
function SeenFacts({ seen }: { seen: SeenHeadings['headings'][number] | undefined }) {
  if (!seen) return null;
  const { years, languages, roles, sources, isPart } = seen;
  const facts = [
    years && (years.first === years.last ? String(years.first) : `${years.first}–${years.last}`),
    languages.map((code) => codeName('languages', code) ?? code).join(', '),
    roles.join(', '),
  ].filter(Boolean);
  return (
    <>
      {facts.length ? (
        <p>
          {facts.join(' · ')}
          {isPart ? wording.ofItsFirstRecords : ''}
        </p>
      ) : null}
      {sources.length ? <p className="faded">{wording.sources(sources.join('; '))}</p> : null}
    </>
  );
}

/** A group of look-alikes side by side: choose the form that is kept, take out who does not belong, merge; or keep two apart. */
export function GroupPiece({ group, onDone }: { group: LookAlikeGroup; onDone: () => void }) {
  const [kept, setKept] = useState(() => fullestForm(group.headings).id);
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  const [reviewing, setReviewing] = useState(false);
  const mayMerge = useMay('merge headings');
  const { say, complain } = useShell();
  const lost = group.headings.map((h) => h.id).filter((h) => h !== kept && !out.has(h));
  const apart = async (a: number, b: number) => {
    try {
      const done = await call(api.headings.keepApart, { body: { a, b } });
      say(done.sentence, done.entry);
      onDone();
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const { data: seen } = useApi(api.headings.evidence, {
    query: { ids: group.headings.map((h) => h.id).join(',') },
  });
  // Until the records have been looked at, what the forms alone say.
  const judged =
    seen?.pairs ??
    group.pairs.map((p) => ({
      ...p,
      verdict: p.score >= SAME ? ('same' as const) : ('perhaps' as const),
      evidence: p.why.split('; '),
    }));
  const isOfPeople = group.headings.every((h) => h.kind === 'personal');
  const name = (id: number) => group.headings.find((h) => h.id === id)?.text ?? String(id);
  return (
    <div className="stack">
      <h2>{isOfPeople ? wording.onePersonOrSeveral : wording.oneHeadingOrSeveral}</h2>
      <ul className="whys">
        {judged.map((p) => (
          <li key={`${p.a} ${p.b}`}>
            <Mark kind={VERDICT_MARK[p.verdict]} name={wording.verdicts[p.verdict]} />{' '}
            {wording.judgedPair(
              wording.verdicts[p.verdict],
              group.headings.length > 2 ? [name(p.a), name(p.b)] : [],
              p.evidence,
            )}
          </li>
        ))}
      </ul>
      <div className="name-cards" role="radiogroup" aria-label={wording.chooseTheKeptForm}>
        {group.headings.map((h) => (
          <div
            key={h.id}
            className={h.id === kept ? 'name-card kept' : out.has(h.id) ? 'name-card out' : 'name-card'}
          >
            <Radio
              className="name-form"
              name="kept"
              checked={h.id === kept}
              disabled={!mayMerge}
              onChange={() => {
                setKept(h.id);
                setOut(new Set([...out].filter((x) => x !== h.id)));
              }}
            >
              <bdi>{h.text}</bdi>
            </Radio>
            <p className="faded">
              {wording.heading(h.id === kept ? wording.keptForm : wording.becomesASeeFrom)}{' '}
              <Link to={`/headings/${h.id}`}>{h.id}</Link> ·{' '}
              {h.records === 1 ? wording.n1Record : wording.records(h.records)}
            </p>
            <SeenFacts seen={seen?.headings.find((s) => s.id === h.id)} />
            {h.seeFrom.length ? <p className="faded">{wording.seeFrom(h.seeFrom.join('; '))}</p> : null}
            <ul>
              {h.titles.map((t, i) => (
                <li key={i}>{t}</li>
              ))}
            </ul>
            {h.id !== kept && group.headings.length > 2 ? (
              <Checkbox
                className="row"
                checked={!out.has(h.id)}
                onChange={() =>
                  setOut(
                    out.has(h.id) ? new Set([...out].filter((x) => x !== h.id)) : new Set([...out, h.id]),
                  )
                }
              >
                {wording.merge}
              </Checkbox>
            ) : null}
          </div>
        ))}
      </div>
      {mayMerge ? (
        <div className="row">
          <Button type="primary" data-key="m" disabled={lost.length === 0} onClick={() => setReviewing(true)}>
            {wording.mergeHeadingsInto1(lost.length + 1)}
          </Button>
          {group.pairs.map((p) => (
            <Button key={`${p.a} ${p.b}`} data-key="x" onClick={() => void apart(p.a, p.b)}>
              {group.pairs.length > 1
                ? wording.andAreDifferent(p.a, p.b)
                : isOfPeople
                  ? wording.differentPeople
                  : wording.differentHeadings}
            </Button>
          ))}
        </div>
      ) : null}
      {reviewing ? (
        <MergeSheet kept={kept} lost={lost} onClose={() => setReviewing(false)} onDone={onDone} />
      ) : null}
    </div>
  );
}

function MergeSheet({
  kept,
  lost,
  onClose,
  onDone,
}: {
  kept: number;
  lost: number[];
  onClose: () => void;
  onDone: () => void;
}) {
  const { say } = useShell();
  const page = (from: number) => call(api.headings.reviewMerge, { body: { kept, lost, from } });
  const review = useQuery({
    queryKey: ['review', 'merge', kept, lost],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
  });
  const act = async (_: readonly number[], token: string) => {
    const done = await call(api.headings.merge, { body: { kept, lost, token } });
    say(done.sentence, done.entry);
    onDone();
    await refresh();
  };
  return (
    <ReviewSheet
      title={wording.mergeHeadingsInto12(lost.length + 1)}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={act}
      onAnew={review.refetch}
      onMore={page}
    />
  );
}
