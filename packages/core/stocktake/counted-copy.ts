import { byKey } from '../callnumbers';
import { withoutMarks } from '../text';

/** How strictly a shelf is held in order. */
export const SHELF_ORDERS = ['call', 'call+author', 'call+author+title'] as const;
export type ShelfOrder = (typeof SHELF_ORDERS)[number];

/** What of a copy's place is not in a stretch. */
export type Outside = 'branch' | 'location' | 'type' | 'range';

/** A copy as a stocktake compares it. */
export interface CountedCopy {
  readonly barcode: string;
  /** Its status in the records, or `on loan` when the loans desk says so. */
  readonly status: string;
  /** ISO date, or ''. */
  readonly lastSeen: string;
  /** Number of the home it belongs to; -1 for one that belongs to none of the walked places. */
  readonly home: number;
  /** For one of no home: what of its place is another. */
  readonly outside: Outside;
  /** Key of its call number, then author and title as `filedAs` gives them: together its place on the shelf. */
  readonly call: string;
  readonly author: string;
  readonly title: string;
}

/** An author or title as it stands on a shelf: marks and case off, everything but letters and digits one blank. */
export const filedAs = (text: string): string =>
  withoutMarks(text)
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

const byAuthor = (a: CountedCopy, b: CountedCopy): number =>
  byKey(a.call, b.call) || byKey(a.author, b.author);
/** Compares by call number, author and title. */
export const byTitle = (a: CountedCopy, b: CountedCopy): number => byAuthor(a, b) || byKey(a.title, b.title);

/** Compares by what a shelf is held in order by. */
export const BY_ORDER: Readonly<Record<ShelfOrder, (a: CountedCopy, b: CountedCopy) => number>> = {
  call: (a, b) => byKey(a.call, b.call),
  'call+author': byAuthor,
  'call+author+title': byTitle,
};
