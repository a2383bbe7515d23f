import type { BriefState } from '@osier/core/neighbours';
import type { BriefRecordColumns } from '../store/models';
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

/** A brief record as a list shows it. */
export interface ShownBrief {
  readonly record: number;
  readonly since: string;
  readonly asked: string;
  readonly state: BriefState;
  readonly reason: string;
  readonly neighbour: number;
}

/** Brief records behind a place, those that wait longest first: those of a state, or of any that wait since a day or longer. */
export const briefsBehind = (
  store: Store,
  which: { readonly state: BriefState | null; readonly until: string },
  { since, record }: { readonly since: string; readonly record: number },
  limit: number,
): Promise<ShownBrief[]> =>
  store.rows(
    `SELECT record, since, asked, state, reason, neighbour FROM brief_records
      WHERE (:state IS NULL OR state = :state) AND since <= :until AND (since, record) > (:since, :record) ORDER BY since, record LIMIT :limit`,
    { ...which, since, record, limit },
  );

/** The rows of brief records in the order of their numbers. */
export const briefRowsAfter = (store: Store, after: number, limit: number): Promise<BriefRecordColumns[]> =>
  store.rows('SELECT * FROM brief_records WHERE record > :after ORDER BY record LIMIT :limit', {
    after,
    limit,
  });

/** How many brief records stand how, and how many of them wait since a day or longer. */
export const countsOfBriefs = (
  store: Store,
  until: string,
): Promise<{ state: BriefState; n: number; long: number }[]> =>
  store.rows('SELECT state, COUNT(*) AS n, SUM(since <= :until) AS long FROM brief_records GROUP BY state', {
    until,
  });

/** When work of a kind was begun last, ISO; nothing for never. */
export const lastBegun = (store: Store, kind: string): Promise<{ started: string } | undefined> =>
  store.row('SELECT started FROM jobs WHERE kind = :kind ORDER BY id DESC LIMIT 1', { kind });

/** The books of a list in their order, each with the record of the catalogue that has its number now. */
export const booksOfList = (store: Store, list: number): Promise<ShownBook[]> =>
  store.rows(
    `SELECT b.seq, b.code, b.isbn, b.state, b.reason, b.title, b.neighbour, b.delivery,
       ifnull((SELECT MIN(k.record) FROM record_keys k WHERE k.kind = 'isbn' AND k.key = b.isbn AND b.isbn <> ''), 0) AS record
     FROM book_list_rows b WHERE b.list = :list ORDER BY b.seq`,
    { list },
  );
