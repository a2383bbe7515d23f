import { keysAt, wordsAt } from '@osier/core/access';
import type { Heading } from '@osier/core/headings';
import { KINDS, type Kind, type KindAccess, type KindValue } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import type { Transaction } from './database';
import type { Database } from './database';
import { inSlices } from './in-slices';
import { insertRows } from './insert';

/** Kind of the key under which a record is found by a heading of a group (`headingGroup`). */
export const headingKeyKind = (group: string): string => `heading ${group}`;
/** The same in SQL, for a row of `headings` (`h`). */
export const HEADING_KEY_KIND = "'heading ' || h.kind || ' ' || h.vocabulary";

/** The heading that `:heading` leads to: itself, or the one it was merged into, and on from there. */
export const LEADS_TO = `WITH RECURSIVE lead (id, next) AS (SELECT id, merged_into FROM headings WHERE id = :heading
  UNION SELECT h.id, h.merged_into FROM lead JOIN headings h ON h.id = lead.next) SELECT id FROM lead WHERE next IS NULL`;

/** The access points of a kind by where they are kept. */
export const pointsOf = <K extends Kind>(kind: K): Required<KindAccess<KindValue<K>>> => ({
  ...{ words: [], keys: [], terms: [], columns: [] },
  ...KINDS[kind].access,
});

const RECORD = pointsOf('record');
const HEADING = pointsOf('heading');
/** The columns of the full-text index in the order of their rank. */
const WORD_COLUMNS: readonly string[] = RECORD.words.map((p) => p.name);

/** The tables that keys and words of records are kept in. */
export interface IndexTables {
  readonly keys: string;
  readonly words: string;
}
/** Those that are searched. */
export const SEARCHED: IndexTables = { keys: 'record_keys', words: 'record_words' };
/** Those that are filled beside them when a rule has changed, and then take their place. */
export const COMING: IndexTables = { keys: 'record_keys_coming', words: 'record_words_coming' };

/**
 * The full-text index of words under a name. Words come to it folded, with blanks between them; all that stands between blanks is
 * one word to it, whatever SQLite's own tables (of Unicode 6.1) hold for a letter.
 */
export const wordsTable = (name: string): string =>
  `CREATE VIRTUAL TABLE ${name} USING fts5 (${WORD_COLUMNS.join(', ')}, content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 0 categories 'L* M* N* P* S* C*'", prefix='2 3')`;

/** The columns that a full-text index has as it stands: one of an older version lacks some until it is rebuilt. */
export async function wordColumnsOf(db: Database, table = SEARCHED.words): Promise<string[]> {
  const columns = await db.rows<{ name: string }>('SELECT name FROM pragma_table_info(:table)', { table });
  return columns.map((c) => c.name);
}

/** Brings keys and words of written or removed records in line, in the transaction that wrote them. */
export async function indexRecords(
  db: Database,
  written: ReadonlyMap<number, MarcRecord | null>,
  isNew: ReadonlySet<number>,
  tx: Transaction,
  into: IndexTables = SEARCHED,
): Promise<void> {
  const keys: unknown[][] = [];
  const words: [id: number, at: Record<string, string>][] = [];
  await inSlices(written, ([id, marc]) => {
    if (!marc) return;
    for (const point of RECORD.keys)
      for (const { key, group } of keysAt(point, marc))
        keys.push([group === undefined ? point.name : `${point.name} ${group}`, key, id]);
    words.push([id, Object.fromEntries(RECORD.words.map((p) => [p.name, wordsAt(p, marc)]))]);
  });
  const stale = [...written.keys()].filter((id) => !isNew.has(id));
  if (stale.length) {
    await db.run(`DELETE FROM ${into.keys} WHERE record IN (:stale)`, { stale }, tx);
    await db.run(`DELETE FROM ${into.words} WHERE rowid IN (:stale)`, { stale }, tx);
  }
  await insertRows(db, 'INSERT OR IGNORE', into.keys, ['kind', 'key', 'record'], keys, tx);
  const there = await wordColumnsOf(db, into.words);
  const columns = RECORD.words.map((p) => p.name).filter((name) => there.includes(name));
  const rows = words.map(([id, at]) => [id, ...columns.map((c) => at[c])]);
  await insertRows(db, 'INSERT', into.words, ['rowid', ...columns], rows, tx);
}

/** Keys of headings: kept form and see-froms, so that either is known. A merged heading answers through the kept one. */
export async function indexHeadings(
  db: Database,
  written: ReadonlyMap<number, Heading | null>,
  tx: Transaction,
): Promise<void> {
  const keys: unknown[][] = [];
  for (const [id, heading] of written)
    for (const point of heading ? HEADING.keys : [])
      for (const { key, group } of keysAt(point, heading!)) keys.push([group, key, id]);
  await db.run('DELETE FROM heading_keys WHERE heading IN (:ids)', { ids: [...written.keys()] }, tx);
  await insertRows(db, 'INSERT OR IGNORE', 'heading_keys', ['kind', 'key', 'heading'], keys, tx);
}

/** The words of written or removed headings; a merged heading has none. */
export async function indexHeadingWords(
  db: Database,
  written: ReadonlyMap<number, Heading | null>,
  tx: Transaction,
): Promise<void> {
  const rows = [...written].flatMap(([id, heading]) =>
    heading && heading.mergedInto === null ? [[id, ...HEADING.words.map((p) => wordsAt(p, heading))]] : [],
  );
  await db.run('DELETE FROM heading_words WHERE rowid IN (:ids)', { ids: [...written.keys()] }, tx);
  await insertRows(db, 'INSERT', 'heading_words', ['rowid', ...HEADING.words.map((p) => p.name)], rows, tx);
}
