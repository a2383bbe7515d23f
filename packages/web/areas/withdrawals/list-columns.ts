import type { WithdrawalRow } from '@osier/contract';
import { costText } from '@osier/core/holdings';
import type { ListColumn, ListView } from '../../parts/list-view';
import { withdrawalsWords as wording } from './words';

/** Whether a copy that was to be pulled was. */
const pulledSays = ({ pulled }: WithdrawalRow): string =>
  pulled === null ? '' : pulled ? wording.isPulled : wording.toPull;

/** A column whose cells are texts. */
export type ScanColumn = Omit<ListColumn<WithdrawalRow>, 'of'> & {
  readonly of: (row: WithdrawalRow) => string;
};

/** What a withdrawal list can show of each scan beside barcode, title and reasons. */
export const listColumns = (): readonly ScanColumn[] => [
  { key: 'callNumber', name: wording.callNumber, of: (r) => r.callNumber, width: 130, isMono: true },
  {
    key: 'status',
    name: wording.status,
    of: (r) => [pulledSays(r), r.candidate?.status].filter(Boolean).join(' · '),
    width: 90,
  },
  { key: 'place', name: wording.place, of: (r) => r.place, width: 170 },
  {
    key: 'price',
    name: wording.price,
    of: (r) => (r.candidate ? costText(r.candidate) : ''),
    width: 78,
    isNumber: true,
  },
  {
    key: 'loans',
    name: wording.loans,
    of: (r) => (r.loans === null ? '' : String(r.loans)),
    width: 44,
    isNumber: true,
  },
  { key: 'lastLoan', name: wording.lastLoan, of: (r) => r.lastLoan, width: 84, isNumber: true },
];

/** On a wide screen the reason stands on the same line. */
export const FIRST_LIST_VIEW: ListView = {
  isDense: typeof matchMedia === 'function' && matchMedia('(min-width: 1501px)').matches,
  columns: ['callNumber', 'status', 'place'],
};

/** By what the scans of a list can be sorted. */
export const LIST_ORDERS = [
  ['scanned', wording.asScanned],
  ['shelf', wording.callNumber],
  ['title', wording.title],
  ['lent', wording.lastLoan],
] as const;
export type ListOrder = (typeof LIST_ORDERS)[number][0];

const KEYS: Readonly<Record<Exclude<ListOrder, 'scanned'>, (row: WithdrawalRow) => string>> = {
  shelf: (r) => r.shelfKey,
  title: (r) => r.candidate?.title.toLowerCase() ?? '',
  lent: (r) => r.lastLoan,
};

/** The scans of a list in an order; those of no copy last. */
export function inListOrder(rows: readonly WithdrawalRow[], order: ListOrder): readonly WithdrawalRow[] {
  if (order === 'scanned') return rows;
  const key = KEYS[order];
  // Keys of the shelf are compared letter by letter, as the shelf is.
  return [...rows].sort(
    (a, b) =>
      Number(a.candidate === null) - Number(b.candidate === null) ||
      (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : a.scan - b.scan),
  );
}
