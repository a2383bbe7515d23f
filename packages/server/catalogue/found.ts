import { isAddress, hasAny, parseAddress } from '@osier/core/address';
import type { MarcRecord } from '@osier/core/marc';
import { recogniseInput, type Recognition } from '@osier/core/query';
import { foldedWords } from '@osier/core/text';
import type { Store } from '../store/store';

/** What narrows a search beside its words. */
export interface SearchFacets {
  readonly language?: string;
  readonly branch?: string;
  readonly material?: string;
}

/** A search as SQL that gives `id`s, and what its input was taken for. */
export interface Found {
  readonly tookFor: Recognition['as'];
  readonly sql: string;
  readonly params: Record<string, unknown>;
  /** It finds every record. */
  readonly all?: boolean;
}

/**
 * The records a search finds: by words (all of them, each as a beginning), ISBN, call number, or by having what a field
 * address (MARCspec) names; all when it is empty.
 */
export async function foundBy(store: Store, q: string): Promise<Found> {
  const recognition = recogniseInput(q);
  return { tookFor: recognition.as, ...(await sqlOf(store, recognition)) };
}

/** The records (`r`) of a search; what is sorted and counted by stands in an index, so that the records are not read. */
export const recordsOf = ({ sql, all }: Found): string =>
  all
    ? 'records r INDEXED BY records_sort'
    : `(${sql}) f CROSS JOIN records r INDEXED BY records_facets ON r.id = f.id`;

/** The records of a search behind an id, in the order of their ids, as SQL. */
export const foundInOrder = (found: Found, facets: SearchFacets, atMost: number): string =>
  `SELECT r.id FROM ${found.all ? 'records r' : recordsOf(found)} WHERE ${facetConditions(facets)} AND r.id > :after ORDER BY r.id LIMIT ${atMost}`;

/** The conditions of facets on records (`r`). */
export function facetConditions(facets: SearchFacets): string {
  const conditions = ['1'];
  if (facets.language) conditions.push('r.language = :language');
  if (facets.material) conditions.push('r.material = :material');
  if (facets.branch)
    conditions.push('EXISTS (SELECT 1 FROM holdings h WHERE h.record = r.id AND h.branch = :branch)');
  return conditions.join(' AND ');
}

async function sqlOf(store: Store, recognition: Recognition): Promise<Omit<Found, 'tookFor'>> {
  switch (recognition.as) {
    case 'isbn':
      return {
        sql: "SELECT record AS id FROM record_keys WHERE kind = 'isbn' AND key = :key",
        params: { key: recognition.code },
      };
    case 'call number':
      return {
        sql: 'SELECT DISTINCT record AS id FROM holdings WHERE call_number >= :from AND call_number < :to',
        params: { from: recognition.text, to: `${recognition.text}\uffff` },
      };
    case 'field address':
      return {
        sql: 'SELECT value AS id FROM json_each(:having)',
        params: { having: JSON.stringify(await having(store, recognition.text)) },
      };
  }
  const text =
    recognition.as === 'words' ? recognition.text : recognition.as === 'barcode' ? recognition.code : '';
  const words = foldedWords(text);
  if (words.length === 0) return { sql: 'SELECT id FROM records', params: {}, all: true };
  return {
    sql: 'SELECT rowid AS id FROM record_words WHERE record_words MATCH :match',
    params: { match: words.map((w) => `"${w}"*`).join(' ') },
  };
}

const AT_ONCE = 500;
/** The last answers, each good until something is written. */
const known = new WeakMap<Store, Map<string, { readonly at: number; readonly ids: readonly number[] }>>();
const KEPT = 8;

/** The records that have what an address names. Every record with such a tag is looked at, a piece at a time. */
async function having(store: Store, written: string): Promise<readonly number[]> {
  const address = parseAddress(written);
  if (!isAddress(address)) return [];
  const kept = known.get(store) ?? new Map<string, { at: number; ids: readonly number[] }>();
  known.set(store, kept);
  // Grows with every commit of the connection that writes.
  const at = (await store.row<{ data_version: number }>('PRAGMA data_version'))!.data_version;
  const before = kept.get(written);
  if (before?.at === at) return before.ids;
  const ids: number[] = [];
  const patient = store.aside;
  const tag = /^[0-9]{3}$/.test(address.tag) ? `"tag":"${address.tag}"` : '';
  for (let after = 0; ;) {
    const rows = await patient.rows<{ id: number; value: string }>(
      `SELECT id, value FROM records WHERE id > :after AND instr(value, :tag) > 0 ORDER BY id LIMIT ${AT_ONCE}`,
      { after, tag },
    );
    for (const { id, value } of rows) if (hasAny(JSON.parse(value) as MarcRecord, address)) ids.push(id);
    if (rows.length < AT_ONCE) break;
    after = rows.at(-1)!.id;
  }
  kept.delete(written);
  kept.set(written, { at, ids });
  for (const old of [...kept.keys()].slice(0, Math.max(0, kept.size - KEPT))) kept.delete(old);
  return ids;
}
