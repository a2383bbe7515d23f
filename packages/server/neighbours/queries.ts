import type { Store } from '../store/store';

/** How many books of a list stand how, and how many of them are found and in no delivery. */
export const countsOfBooks = (
  store: Store,
  list: number,
): Promise<{ state: string; n: number; ready: number }[]> =>
  store.rows(
    `SELECT state, COUNT(*) AS n, SUM(marc IS NOT NULL AND delivery = 0) AS ready FROM book_list_rows WHERE list = :list GROUP BY state`,
    { list },
  );

/** A book of a list as it is shown, without its record. */
export interface ShownBook {
  readonly seq: number;
  readonly code: string;
  readonly isbn: string;
  readonly state: string;
  readonly reason: string;
  readonly title: string;
  readonly neighbour: number;
  readonly delivery: number;
  /** A record of the catalogue that has the number now; 0 for none. */
  readonly record: number;
}

/** The books of a list in their order, each with the record of the catalogue that has its number now. */
export const booksOfList = (store: Store, list: number): Promise<ShownBook[]> =>
  store.rows(
    `SELECT b.seq, b.code, b.isbn, b.state, b.reason, b.title, b.neighbour, b.delivery,
       ifnull((SELECT MIN(k.record) FROM record_keys k WHERE k.kind = 'isbn' AND k.key = b.isbn AND b.isbn <> ''), 0) AS record
     FROM book_list_rows b WHERE b.list = :list ORDER BY b.seq`,
    { list },
  );
