import type { IncomingRow } from '@osier/contract';
import type { ListColumn, ListView } from '../../parts/list-view';
import { FindingCounts, Mark } from '../../parts/Mark';
import { OUTCOME_SHORT } from '../../parts/outcomes';
import { deliveriesWords as wording } from './words';

/** What becomes of an incoming record, or became of it. */
function decided(r: IncomingRow): string {
  if (r.state === 'accepted') return wording.asRecord(r.record);
  return r.state === 'skipped' ? wording.skipped : OUTCOME_SHORT[r.decision];
}

/** The record that the catalogue holds already, and how many more. */
function Held({ row: { matches } }: { row: IncomingRow }) {
  const first = matches[0];
  if (!first) return null;
  return (
    <span title={first.doubts[0] ?? wording.theCatalogueHoldsIt}>
      {wording.held(first.record, first.sure, matches.length - 1)}
    </span>
  );
}

/** The copies that come with it, marked where one cannot be made as it is. */
const Copies = ({ row: r }: { row: IncomingRow }) => (
  <>
    {r.copyProblems ? <Mark kind="stop" name={wording.withAProblem(r.copyProblems)} /> : null}
    {r.copies === 1 ? wording.n1Copy : wording.copies2(r.copies)}
  </>
);

/** What the list of incoming records can show of each beside its title. */
export const COLUMNS: readonly ListColumn<IncomingRow>[] = [
  { key: 'seq', name: wording.placeInTheFile, of: (r) => r.seq, width: 44 },
  { key: 'author', name: wording.nameColumn, of: (r) => r.author, width: 130 },
  { key: 'year', name: wording.yearColumn, of: (r) => r.year, width: 38 },
  { key: 'isbn', name: wording.isbnColumn, of: (r) => r.isbn, width: 112 },
  {
    key: 'decision',
    name: wording.decision,
    of: (r) => (
      <span className={`said-decision ${r.state === 'waiting' ? r.decision : ''}`}>{decided(r)}</span>
    ),
    width: 84,
    endOf: 'first',
  },
  {
    key: 'held',
    name: wording.heldColumn,
    of: (r) => (r.matches.length ? <Held row={r} /> : null),
    width: 84,
    isNumber: true,
  },
  {
    key: 'copies',
    name: wording.copiesColumn,
    of: (r) => (r.copies ? <Copies row={r} /> : null),
    width: 60,
    isNumber: true,
  },
  {
    key: 'findings',
    name: wording.findingsColumn,
    of: (r) => (
      <>
        {r.note ? <Mark kind="information" name={r.note} /> : null}
        {r.repeats ? wording.twice : null} <FindingCounts {...r} />
      </>
    ),
    width: 70,
    isNumber: true,
  },
];
export const FIRST_VIEW: ListView = { isDense: false, columns: COLUMNS.map((c) => c.key) };
