import { bucketsIn, type BucketWord, type Buckets, type LookAlike } from '@osier/core/headings';
import type { Transaction } from '../store/database';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import type { AllNamesWork } from './all-names';

/** A heading that is to be compared: what is kept of it, as JSON of a `Heading`, and its version. */
export interface WaitingName extends NameSeen {
  readonly value: string;
  /** What was kept of it when it was compared last, as JSON of a `ComparedHeading`. */
  readonly before?: string | null;
}

/** A heading, and its version when it was looked at. */
export interface NameSeen {
  readonly id: number;
  readonly version: number;
}

/** A heading as it is compared, as JSON of a `ComparedHeading`, with its buckets; null for one that is compared with none. */
export interface NameRead {
  readonly id: number;
  readonly name: string | null;
  readonly buckets: Buckets;
  /** The buckets that it was in until now; none where what is kept of it stays as it is. */
  readonly before: readonly number[];
}

/** Names as JSON of a `ComparedHeading`, buckets with the headings in them, and the buckets that some headings are to be compared in. */
export interface NameMates {
  readonly names: readonly string[];
  readonly buckets: readonly (readonly [bucket: number, headings: readonly number[]])[];
  readonly own: readonly (readonly [heading: number, buckets: readonly number[]])[];
}

/** How names are read and compared: in a worker of the server, or on the spot for a store that is opened by itself. */
export interface NameWork extends AllNamesWork {
  readForms(waiting: readonly WaitingName[]): Promise<NameRead[]>;
  compareNames(mates: NameMates): Promise<LookAlike[]>;
}

/** Headings that are taken up together. */
const AT_ONCE = 12_000;

const AMONG = 'IN (SELECT value FROM json_each(:ids))';
const json = (value: unknown) => JSON.stringify(value);

/**
 * Some of the headings that were touched since they were compared, in the order of their keys: those that look alike are then mostly compared together. Those that are gone
 * are among them, without a value.
 */
export const waitingNames = (store: Store): Promise<WaitingName[]> =>
  store.rows<WaitingName>(
    `SELECT d.heading AS id, COALESCE(h.version, 0) AS version, COALESCE(h.value, '') AS value, n.name AS before
       FROM (SELECT heading FROM alike_dirty ORDER BY place, heading LIMIT ${AT_ONCE}) d LEFT JOIN headings h ON h.id = d.heading
       LEFT JOIN alike_names n ON n.heading = d.heading`,
  );

/** Those that are still as they were read. */
export async function unchanged(store: Store, waiting: readonly NameSeen[]): Promise<Set<number>> {
  const found = await store.row<{ ids: string }>(
    `SELECT json_group_array(w.value ->> 0) AS ids FROM json_each(:waiting) w LEFT JOIN headings h ON h.id = w.value ->> 0
      WHERE COALESCE(h.version, 0) = w.value ->> 1`,
    { waiting: json(waiting.map((w) => [w.id, w.version])) },
  );
  return new Set(keptJson<number[]>(found!.ids));
}

/** Marks headings as touched. */
export const markNames = (store: Store, headings: readonly number[], tx: Transaction): Promise<void> =>
  store.run(
    `INSERT OR IGNORE INTO alike_dirty (heading, place) SELECT i.value, COALESCE(substr(h.key, 1, 24), '')
       FROM json_each(:ids) i LEFT JOIN headings h ON h.id = i.value`,
    { ids: json(headings) },
    tx,
  );

/** The buckets that headings were in until now, as JSON of an object, by heading. */
export const bucketsBefore = (read: readonly NameRead[]): string =>
  json(Object.fromEntries(read.flatMap(({ id, before }) => (before.length ? [[id, before]] : []))));

/** Forgets what was kept of headings, and takes them out of their buckets; see `bucketsBefore`. */
export async function forgetNames(store: Store, before: string, tx: Transaction): Promise<void> {
  await store.bind(
    `DELETE FROM alike_buckets WHERE (bucket, heading) IN (SELECT n.value, CAST(l.key AS INTEGER) FROM json_each($1) l CROSS JOIN json_each(l.value) n)`,
    [before],
    tx,
  );
  await store.bind(
    'DELETE FROM alike_names WHERE heading IN (SELECT CAST(key AS INTEGER) FROM json_each($1))',
    [before],
    tx,
  );
}

/** Keeps names and buckets of headings that are still as they were read; gives which these are. */
export async function keepNames(
  store: Store,
  waiting: readonly NameSeen[],
  read: readonly NameRead[],
  tx: Transaction,
): Promise<ReadonlySet<number>> {
  const ids = await unchanged(store, waiting);
  const own = read.filter(({ id }) => ids.has(id));
  await forgetNames(store, bucketsBefore(own), tx);
  const names = own.flatMap(({ id, name }) => (name === null ? [] : [`"${id}":${name}`]));
  await store.bind(
    'INSERT OR REPLACE INTO alike_names (heading, name) SELECT CAST(key AS INTEGER), value FROM json_each($1)',
    [`{${names.join()}}`],
    tx,
  );
  const lists = own.map(({ id, buckets }) => [id, bucketsIn(buckets)]);
  await store.bind(
    `INSERT OR IGNORE INTO alike_buckets (heading, bucket) SELECT CAST(l.key AS INTEGER), n.value FROM json_each($1) l CROSS JOIN json_each(l.value) n ORDER BY n.value`,
    [json(Object.fromEntries(lists))],
    tx,
  );
  // What lies near a word never changes: one that is kept already is left as it is.
  await store.bind(
    `INSERT OR IGNORE INTO alike_near (near, bucket) SELECT n.value, CAST(l.key AS INTEGER) FROM json_each($1) l CROSS JOIN json_each(l.value) n
      WHERE NOT EXISTS (SELECT 1 FROM alike_near e WHERE e.near = l.value ->> 0 AND e.bucket = CAST(l.key AS INTEGER)) ORDER BY n.value`,
    [json(nearOf(own.flatMap(({ buckets }) => buckets.words)))],
    tx,
  );
  return ids;
}

/** What lies near each of some words, by the word. */
const nearOf = (words: readonly BucketWord[]): Record<string, readonly number[]> =>
  Object.fromEntries(words.map((w) => [w.word, w.near]));

/** What some headings are to be compared with: those that share a bucket with them, or have a word that lies near one of theirs. */
export async function matesOf(store: Store, read: readonly NameRead[]): Promise<NameMates> {
  const own = read.filter(({ name }) => name !== null);
  const words = await wordsNear(
    store,
    own.flatMap(({ buckets }) => buckets.words),
  );
  const wanted = own.map(
    ({ id, buckets: { exact, words: some } }) =>
      [id, [...exact, ...new Set(some.flatMap((w) => words.get(w.word) ?? []))]] as const,
  );
  // Each bucket comes once, however many of these headings are in it.
  const rows = await store.rows<{ bucket: number; headings: string }>(
    `SELECT w.value AS bucket, (SELECT json_group_array(b.heading) FROM alike_buckets b WHERE b.bucket = w.value) AS headings FROM json_each(:buckets) w`,
    { buckets: json([...new Set(wanted.flatMap(([, some]) => some))]) },
  );
  const all = new Map(rows.map(({ bucket, headings }) => [bucket, keptJson<number[]>(headings)]));
  // A heading that is alone in all of its buckets is compared with none.
  const inCompany = wanted.filter(([id, some]) =>
    some.some((bucket) => all.get(bucket)?.some((h) => h !== id)),
  );
  const buckets = new Map(
    inCompany.flatMap(([, some]) => some.map((bucket) => [bucket, all.get(bucket) ?? []] as const)),
  );
  const names = await store.rows<{ name: string }>(`SELECT name FROM alike_names WHERE heading ${AMONG}`, {
    ids: json([...new Set([...buckets.values()].flat())]),
  });
  return { names: names.map((n) => n.name), buckets: [...buckets], own: inCompany };
}

/** By word the words that lie near it, itself among them when it is kept. */
async function wordsNear(store: Store, own: readonly BucketWord[]): Promise<Map<number, number[]>> {
  const rows = await store.rows<{ word: string; others: string }>(
    `SELECT l.key AS word, (SELECT json_group_array(DISTINCT n.bucket) FROM json_each(l.value) w CROSS JOIN alike_near n ON n.near = w.value) AS others
       FROM json_each(:words) l`,
    { words: json(nearOf(own)) },
  );
  return new Map(rows.map(({ word, others }) => [Number(word), keptJson<number[]>(others)]));
}

/** The established headings (JSON of a `ComparedHeading`) that a heading is to be compared with. */
export async function establishedNear(store: Store, { exact, words: own }: Buckets): Promise<string[]> {
  const words = await wordsNear(store, own);
  const rows = await store.rows<{ name: string }>(
    `SELECT DISTINCT n.name FROM json_each(:buckets) w CROSS JOIN alike_buckets b ON b.bucket = w.value
       JOIN headings h ON h.id = b.heading AND h.established = 1 AND h.merged_into IS NULL JOIN alike_names n ON n.heading = h.id LIMIT 500`,
    { buckets: json([...exact, ...own.flatMap((w) => words.get(w.word) ?? [])]) },
  );
  return rows.map((r) => r.name);
}
