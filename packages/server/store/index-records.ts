import { recordKeys, searchText } from '@osier/core/access';
import {
  headingGroup,
  headingKey,
  headingsOf,
  identityOf,
  seeFroms,
  type Heading,
} from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import { describe, likenessKeys } from '@osier/core/matching';
import type { Transaction } from './database';
import type { Database } from './database';
import { insertRows } from './insert';

/** Kind of the key under which a record is found by a heading of a group (`headingGroup`). */
export const headingKeyKind = (group: string): string => `heading ${group}`;
/** The same in SQL, for a row of `headings` (`h`). */
export const HEADING_KEY_KIND = "'heading ' || h.kind || ' ' || h.vocabulary";

/** The heading that `:heading` leads to: itself, or the one it was merged into, and on from there. */
export const LEADS_TO = `WITH RECURSIVE lead (id, next) AS (SELECT id, merged_into FROM headings WHERE id = :heading
  UNION SELECT h.id, h.merged_into FROM lead JOIN headings h ON h.id = lead.next) SELECT id FROM lead WHERE next IS NULL`;

/** Brings keys and words of written or removed records in line, in the transaction that wrote them. */
export async function indexRecords(
  db: Database,
  written: ReadonlyMap<number, MarcRecord | null>,
  isNew: ReadonlySet<number>,
  tx: Transaction,
): Promise<void> {
  const stale = [...written.keys()].filter((id) => !isNew.has(id));
  if (stale.length) {
    await db.run('DELETE FROM record_keys WHERE record IN (:stale)', { stale }, tx);
    await db.run('DELETE FROM record_words WHERE rowid IN (:stale)', { stale }, tx);
  }
  const keys: unknown[][] = [];
  const words: unknown[][] = [];
  for (const [id, marc] of written) {
    if (!marc) continue;
    for (const k of recordKeys(marc)) keys.push([k.kind, k.key, id]);
    for (const k of likenessKeys(describe(marc))) keys.push([k.kind, k.key, id]);
    for (const h of headingsOf(marc)) keys.push([headingKeyKind(headingGroup(h)), h.key, id]);
    const text = searchText(marc);
    words.push([id, text.title, text.name, text.subject, text.rest]);
  }
  await insertRows(db, 'INSERT OR IGNORE', 'record_keys', ['kind', 'key', 'record'], keys, tx);
  await insertRows(db, 'INSERT', 'record_words', ['rowid', 'title', 'name', 'subject', 'rest'], words, tx);
}

/** Keys of headings: kept form and see-froms, so that either is known. A merged heading answers through the kept one. */
export async function indexHeadings(
  db: Database,
  written: ReadonlyMap<number, Heading | null>,
  tx: Transaction,
): Promise<void> {
  await db.run('DELETE FROM heading_keys WHERE heading IN (:ids)', { ids: [...written.keys()] }, tx);
  const keys: unknown[][] = [];
  for (const [id, heading] of written) {
    if (!heading || heading.mergedInto !== null) continue;
    const identity = identityOf(heading);
    const group = headingGroup(identity);
    keys.push([group, identity.key, id]);
    for (const f of seeFroms(heading)) keys.push([group, headingKey(f.subfields), id]);
  }
  await insertRows(db, 'INSERT OR IGNORE', 'heading_keys', ['kind', 'key', 'heading'], keys, tx);
}
