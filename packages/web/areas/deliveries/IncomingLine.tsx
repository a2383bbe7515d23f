import type { IncomingRow } from '@osier/contract';
import { FindingCounts, Mark } from '../../parts/Mark';
import { OUTCOME_SHORT } from '../../parts/outcomes';
import { deliveriesWords as wording } from './words';

/** An incoming record in the work list: what is done with it, whether it is held, its copies and findings. */
export function IncomingLine({ row: r }: { row: IncomingRow }) {
  return (
    <>
      <div className="one">
        <b>{r.title}</b>
        <span className={`said-decision ${r.state === 'waiting' ? r.decision : ''}`}>
          {r.state === 'accepted'
            ? `record ${r.record}`
            : r.state === 'skipped'
              ? 'skipped'
              : OUTCOME_SHORT[r.decision]}
        </span>
      </div>
      <div className="two">
        <span>{r.seq}</span>
        <span className="main">{[r.author, r.year, r.isbn].filter(Boolean).join(' · ')}</span>
        {r.matches.length ? (
          <span title={r.matches[0]!.doubts[0] ?? wording.theCatalogueHoldsIt}>
            {r.matches[0]!.sure ? 'held' : 'held?'} {r.matches[0]!.record}
            {r.matches.length > 1 ? ` +${r.matches.length - 1}` : ''}
          </span>
        ) : null}
        {r.copies ? (
          <span>
            {r.copyProblems ? <Mark kind="stop" name={wording.withAProblem(r.copyProblems)} /> : null}
            {r.copies === 1 ? wording.n1Copy : wording.copies2(r.copies)}
          </span>
        ) : null}
        {r.note ? <Mark kind="information" name={r.note} /> : null}
        {r.repeats ? <span>{wording.twice}</span> : null}
        <FindingCounts {...r} />
      </div>
    </>
  );
}
