import type { LinkCheck, LinkResult } from '@osier/core/links';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';

/** What trying an address found, as it is kept. */
export interface KeptCheck extends LinkCheck {
  readonly url: string;
  /** ISO date and time. */
  readonly at: string;
}

const COLUMNS = 'url, at, result, status, moved_to AS movedTo';

/** What was found at some addresses. */
export const checksOf = (store: Store, urls: readonly string[]): Promise<KeptCheck[]> =>
  store.rows<KeptCheck>(
    `SELECT ${COLUMNS} FROM link_checks WHERE url IN (SELECT value FROM json_each(:urls))`,
    {
      urls: JSON.stringify(urls),
    },
  );

/** Keeps what was found, in place of what was found before. */
export async function keepChecks(store: Store, found: readonly KeptCheck[], tx: Transaction): Promise<void> {
  const rows = found.map((f) => [f.url, f.at, f.result, f.status, f.movedTo]);
  await insertRows(
    store,
    'INSERT OR REPLACE',
    'link_checks',
    ['url', 'at', 'result', 'status', 'moved_to'],
    rows,
    tx,
  );
}

/** The addresses of all records behind one, each once, in their order. */
export const addressesAfter = async (store: Store, after: string, atMost: number): Promise<string[]> =>
  (
    await store.rows<{ url: string }>(
      'SELECT DISTINCT url FROM record_links WHERE url > :after ORDER BY url LIMIT :atMost',
      { after, atMost },
    )
  ).map((r) => r.url);

/** How many addresses there are. */
export const countAddresses = async (store: Store): Promise<number> =>
  (await store.row<{ n: number }>('SELECT COUNT(DISTINCT url) AS n FROM record_links'))?.n ?? 0;

/** Forgets what was found at addresses that no record has any more. */
export const forgetUnused = (store: Store, tx: Transaction): Promise<void> =>
  store.run(
    'DELETE FROM link_checks WHERE NOT EXISTS (SELECT 1 FROM record_links l WHERE l.url = link_checks.url)',
    {},
    tx,
  );

/** How many addresses of records were found how; `null` for those that were not tried yet. */
export const countsOfLinks = (store: Store): Promise<{ result: LinkResult | null; n: number }[]> =>
  store.rows<{ result: LinkResult | null; n: number }>(
    `SELECT c.result, COUNT(*) AS n FROM (SELECT DISTINCT url FROM record_links) l LEFT JOIN link_checks c ON c.url = l.url GROUP BY c.result`,
  );

/** A link of a record with what was found. */
export interface LinkOfRecord extends KeptCheck {
  readonly record: number;
  readonly title: string;
}

/** Links that were found so, by address and record, behind a place. */
export const linksFound = (
  store: Store,
  result: LinkResult,
  after: { readonly url: string; readonly record: number },
  atMost: number,
): Promise<LinkOfRecord[]> =>
  store.rows<LinkOfRecord>(
    `SELECT l.record, r.title, c.url, c.at, c.result, c.status, c.moved_to AS movedTo
       FROM link_checks c CROSS JOIN record_links l ON l.url = c.url JOIN record_rows r ON r.id = l.record
      WHERE c.result = :result AND c.url >= :url AND (l.url, l.record) > (:url, :record)
      ORDER BY c.url, l.record LIMIT :atMost`,
    { result, ...after, atMost },
  );
