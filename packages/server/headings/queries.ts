import { SUBJECT_KINDS, type Followable } from '@osier/core/headings';
import type { HeadingList, HeadingRow } from '@osier/contract';
import { LAST_RECORD } from '../catalogue/queries';
import { HEADING_KEY_KIND } from '../store/index-records';
import type { Store } from '../store/store';
import type { HeadingsFound } from './queries.find';

/** Headings that some groups and keys lead to as see-froms: not those that are a kept form themselves, or lead to several. */
export const seeFromsLeadingOn = (
  store: Store,
  wanted: readonly Followable[],
): Promise<{ heading: number; key: string }[]> =>
  store.rows<{ heading: number; key: string }>(
    `SELECT MIN(k.heading) AS heading, k.key FROM json_each(:wanted) w JOIN heading_keys k ON k.kind = w.value ->> 'group' AND k.key = w.value ->> 'key'
       JOIN headings h ON h.id = k.heading AND h.merged_into IS NULL
     GROUP BY k.kind, k.key HAVING COUNT(DISTINCT k.heading) = 1 AND SUM(h.key = k.key) = 0`,
    { wanted: JSON.stringify(wanted) },
  );

const COLUMNS = `h.id, h.text, h.kind, h.vocabulary, h.merged_into AS mergedInto,
  COALESCE((SELECT u.n FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key), 0) AS records`;
const CARRIED = `headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key`;

/** A heading of a list, as the store tells it. */
export type HeadingInList = Omit<HeadingRow, 'merging' | 'leadsTo' | 'knownAs'>;

const IN_USE = `EXISTS (SELECT 1 FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key AND u.n > 0)`;
/** What lists of headings have, of a heading `h`. */
const ONLY: Readonly<Record<HeadingList, string>> = {
  // Found from the established headings, which alone have see-froms.
  'see-froms': `h.id IN (SELECT t.heading FROM headings o JOIN heading_keys k ON k.heading = o.id AND k.key <> o.key
      JOIN heading_keys t ON t.kind = k.kind AND t.key = k.key AND t.heading <> o.id WHERE o.established = 1 AND o.merged_into IS NULL)
    AND EXISTS (SELECT 1 FROM heading_keys k WHERE k.kind = h.kind || ' ' || h.vocabulary AND k.key = h.key AND k.heading <> h.id) AND ${IN_USE}`,
  blind: `h.established = 1 AND NOT ${IN_USE}`,
  'without-records': `NOT ${IN_USE}`,
  nowhere: `h.established = 1 AND EXISTS (SELECT 1 FROM heading_keys k WHERE k.heading = h.id AND k.kind >= 'see-also ' AND k.kind < 'see-also!'
     AND NOT EXISTS (SELECT 1 FROM heading_keys t JOIN headings o ON o.id = t.heading AND o.key = t.key WHERE t.kind = substr(k.kind, 10) AND t.key = k.key))`,
  unestablished: 'h.established = 0',
};

/** Which page of headings: behind a text and a number. */
export interface HeadingsPage {
  readonly found: HeadingsFound;
  readonly kind?: string;
  readonly only?: HeadingList;
  readonly after: AfterHeading | null;
  readonly atMost: number;
}
export type AfterHeading = readonly [text: string, id: number];

/** The conditions of a page of headings `h`, but for its place. */
const conditionsOf = ({ found, kind, only }: Omit<HeadingsPage, 'after' | 'atMost'>): string[] => [
  'h.merged_into IS NULL',
  ...(kind ? ['h.kind = :kind'] : []),
  ...(only ? [ONLY[only]] : []),
  found.where,
];

/** The headings that were found in alphabetical order, from a place on. */
export function headingsInOrder(
  store: Store,
  { after, atMost, ...asked }: HeadingsPage,
): Promise<HeadingInList[]> {
  const [text, id] = after ?? ['', 0];
  const conditions = [...conditionsOf(asked), '(h.text COLLATE NOCASE, h.id) > (:text, :id)'];
  return store.rows<HeadingInList>(
    `SELECT ${COLUMNS} FROM ${asked.found.from} WHERE ${conditions.join(' AND ')} ORDER BY h.text COLLATE NOCASE, h.id LIMIT :atMost`,
    { ...asked.found.params, kind: asked.kind, text, id, atMost },
  );
}

/** How many headings are found, counted to one more than `most`. */
export const countHeadings = async (
  store: Store,
  asked: Omit<HeadingsPage, 'after' | 'atMost'>,
  most: number,
): Promise<number> =>
  (
    await store.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM (SELECT 1 FROM ${asked.found.from} WHERE ${conditionsOf(asked).join(' AND ')} LIMIT :most + 1)`,
      { ...asked.found.params, kind: asked.kind, most },
    )
  )?.n ?? 0;

/** Headings that only records have, those that most records carry first; behind one with so many records. */
export function unestablishedByUse(
  store: Store,
  {
    after,
    atMost,
    ...asked
  }: Omit<HeadingsPage, 'after'> & { readonly after: readonly [n: number, id: number] | null },
): Promise<HeadingInList[]> {
  const conditions = conditionsOf(asked);
  if (after) conditions.push('(u.n < :n OR (u.n = :n AND h.id > :id))');
  return store.rows<HeadingInList>(
    `SELECT ${COLUMNS} FROM heading_use u JOIN heading_keys k ON k.kind = substr(u.kind, 9) AND k.key = u.key
       JOIN headings h ON h.id = k.heading AND h.key = u.key
      WHERE u.n > 0 AND ${after ? 'u.n <= :n AND ' : ''}${conditions.join(' AND ')} ORDER BY u.n DESC, h.id LIMIT :atMost`,
    { ...asked.found.params, kind: asked.kind, ...(after && { n: after[0], id: after[1] }), atMost },
  );
}

/** The headings that some lead to as see-froms, each with all it leads to. */
export const seeFromsOf = (
  store: Store,
  ids: readonly number[],
): Promise<{ from: number; id: number; text: string }[]> =>
  store.rows<{ from: number; id: number; text: string }>(
    `SELECT DISTINCT h.id AS "from", o.id, o.text FROM headings h JOIN heading_keys k ON k.kind = h.kind || ' ' || h.vocabulary AND k.key = h.key AND k.heading <> h.id
       JOIN headings o ON o.id = k.heading AND o.merged_into IS NULL
      WHERE h.id IN (SELECT value FROM json_each(:ids)) ORDER BY 1, 2`,
    { ids: JSON.stringify(ids) },
  );

/** Some headings by their numbers. */
export const headingsByNumber = (store: Store, ids: readonly number[]): Promise<HeadingInList[]> =>
  store.rows<HeadingInList>(
    `SELECT ${COLUMNS} FROM headings h WHERE h.id IN (SELECT value FROM json_each(:ids))`,
    { ids: JSON.stringify(ids) },
  );

/** The first few titles that carry each of some headings. */
export const titlesUnder = (
  store: Store,
  ids: readonly number[],
  atMost: number,
): Promise<{ heading: number; title: string }[]> =>
  store.rows<{ heading: number; title: string }>(
    `SELECT w.value AS heading, r.title FROM json_each(:ids) w CROSS JOIN records r
      WHERE r.id IN (SELECT k.record FROM ${CARRIED} WHERE h.id = w.value ORDER BY k.record LIMIT :atMost) ORDER BY w.key, r.id`,
    { ids: JSON.stringify(ids), atMost },
  );

/** The first few records that carry each of some headings, in the order of their numbers. */
export const firstCarrying = (
  store: Store,
  ids: readonly number[],
  atMost: number,
): Promise<{ heading: number; record: number }[]> =>
  store.rows<{ heading: number; record: number }>(
    `SELECT w.value AS heading, r.id AS record FROM json_each(:ids) w CROSS JOIN record_rows r
      WHERE r.id IN (SELECT k.record FROM ${CARRIED} WHERE h.id = w.value ORDER BY k.record LIMIT :atMost) ORDER BY w.key, r.id`,
    { ids: JSON.stringify(ids), atMost },
  );

/** The records that carry a heading, in the order of their titles, 200 at most. */
export const recordsUnder = (
  store: Store,
  id: number,
): Promise<{ id: number; title: string; year: string }[]> =>
  store.rows<{ id: number; title: string; year: string }>(
    `SELECT r.id, r.title, r.year FROM ${CARRIED} JOIN records r ON r.id = k.record WHERE h.id = :id ORDER BY r.sort LIMIT 200`,
    { id },
  );

/** The headings that were merged into one. */
export const mergedInto = (store: Store, id: number): Promise<{ id: number; text: string }[]> =>
  store.rows<{ id: number; text: string }>(
    'SELECT id, text FROM headings WHERE merged_into = :id ORDER BY id',
    { id },
  );

const AMONG = 'h.id IN (SELECT value FROM json_each(:ids))';
const CARRYING = `SELECT k.record FROM ${CARRIED} WHERE ${AMONG}
  UNION SELECT k.record FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key > h.key || '$' AND k.key < h.key || '%'
    WHERE ${AMONG} AND h.kind IN (${SUBJECT_KINDS.map((k) => `'${k}'`).join(', ')})`;

/** The records behind a number that carry some headings, or a subject that one of them begins; in the order of their numbers. */
export async function recordsCarrying(
  store: Store,
  ids: readonly number[],
  after: number,
  atMost: number,
): Promise<number[]> {
  const rows = await store.rows<{ record: number }>(
    `SELECT record FROM (${CARRYING}) WHERE record > :after ORDER BY record LIMIT :atMost`,
    { ids: JSON.stringify(ids), after, atMost },
  );
  return rows.map((r) => r.record);
}

/** How many those are. */
export const countCarrying = async (store: Store, ids: readonly number[]): Promise<number> =>
  (await store.row<{ n: number }>(`SELECT COUNT(*) AS n FROM (${CARRYING})`, { ids: JSON.stringify(ids) }))!
    .n;

/** What merges over many records, that have not ended, work on; the earliest first. */
export const mergesUnderWay = (store: Store): Promise<{ id: number; work: string }[]> =>
  store.rows<{ id: number; work: string }>(
    "SELECT id, work FROM jobs WHERE kind = 'merge-headings' AND state IN ('waiting', 'running') ORDER BY id",
  );

/** The heading in use whose kept form has a key. */
export const headingWithKey = (
  store: Store,
  { vocabulary, kind, key }: { vocabulary: string; kind: string; key: string },
): Promise<{ id: number } | undefined> =>
  store.row<{ id: number }>(
    'SELECT id FROM headings WHERE vocabulary = :vocabulary AND kind = :kind AND key = :key AND merged_into IS NULL',
    { vocabulary, kind, key },
  );

/** Headings whose kept form begins so, by their text; what was merged away is left out. */
export const headingsBeginning = (
  store: Store,
  text: string,
  atMost: number,
): Promise<{ id: number; text: string; kind: string }[]> =>
  store.rows<{ id: number; text: string; kind: string }>(
    `SELECT id, text, kind FROM headings WHERE merged_into IS NULL AND text >= :text COLLATE NOCASE AND text < :end COLLATE NOCASE
      ORDER BY text COLLATE NOCASE, id LIMIT :atMost`,
    { text, end: `${text}\uffff`, atMost },
  );

/** Headings of a group under whose forms one begins so, by that form: the kept form or a see-from. */
export const formsBeginning = (
  store: Store,
  group: string,
  from: string,
  atMost: number,
): Promise<{ id: number; form: string; key: string; records: number }[]> =>
  store.rows<{ id: number; form: string; key: string; records: number }>(
    `SELECT h.id, k.key AS form, h.key,
        COALESCE((SELECT u.n FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key), 0) AS records
       FROM heading_keys k JOIN headings h ON h.id = k.heading
      WHERE k.kind = :group AND k.key >= :from AND k.key < :end AND h.merged_into IS NULL ORDER BY k.key LIMIT :atMost`,
    { group, from, end: `${from}\uffff`, atMost },
  );

/**
 * The headings in use whose keys go on behind those of some forms, of their vocabularies: subjects with subdivisions, names with titles. Names that
 * only go on otherwise may be among them.
 */
export async function headingsBehindForms(
  store: Store,
  forms: readonly { readonly vocabulary: string; readonly key: string }[],
): Promise<number[]> {
  const wanted = forms.map(({ vocabulary, key }) => ({ vocabulary, key }));
  const rows = await store.rows<{ id: number }>(
    `SELECT DISTINCT h.id FROM json_each(:wanted) w CROSS JOIN json_each(:kinds) k CROSS JOIN headings h
         ON h.vocabulary = w.value ->> 'vocabulary' AND h.kind = k.value AND h.merged_into IS NULL
          AND h.key > (w.value ->> 'key') || '$' AND h.key < (w.value ->> 'key') || '%' ORDER BY h.id`,
    { wanted: JSON.stringify(wanted), kinds: JSON.stringify(['name-title', ...SUBJECT_KINDS]) },
  );
  return rows.map((r) => r.id);
}

/** The headings in use that have one of some keys, under their groups; `isOwn` where it is that of the kept form. */
export const headingsWithKeys = (
  store: Store,
  wanted: readonly { readonly group: string; readonly key: string }[],
): Promise<{ group: string; key: string; heading: number; isOwn: number }[]> =>
  store.rows<{ group: string; key: string; heading: number; isOwn: number }>(
    `SELECT DISTINCT k.kind AS "group", k.key, k.heading, h.key = k.key AND k.kind = h.kind || ' ' || h.vocabulary AS isOwn
       FROM json_each(:wanted) w JOIN heading_keys k ON k.kind = w.value ->> 'group' AND k.key = w.value ->> 'key'
       JOIN headings h ON h.id = k.heading AND h.merged_into IS NULL`,
    { wanted: JSON.stringify(wanted) },
  );

/** Records behind one number and up to another that carry what no heading is known by. */
export async function recordsWithoutHeadings(store: Store, after: number, to: number): Promise<number[]> {
  const rows = await store.rows<{ record: number }>(
    `SELECT DISTINCT k.record FROM record_keys k
      WHERE k.record > :after AND k.record <= :to AND k.kind >= 'heading ' AND k.kind < 'heading!'
        AND NOT EXISTS (SELECT 1 FROM heading_keys h WHERE h.kind = substr(k.kind, 9) AND h.key = k.key) ORDER BY k.record`,
    { after, to },
  );
  return rows.map((r) => r.record);
}

/** The number of the last record; 0 where there is none. */
export const lastRecord = async (store: Store): Promise<number> =>
  (await store.row<{ id: number }>(LAST_RECORD))?.id ?? 0;
