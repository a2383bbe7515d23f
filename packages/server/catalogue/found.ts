import type { SearchBody } from '@osier/contract';
import type { Versioned } from '@osier/core/changes';
import type { MarcRecord } from '@osier/core/marc';
import { recogniseInput, type Recognition } from '@osier/core/query';
import { foldedWords } from '@osier/core/text';
import { quoted } from '../daybook/sentences';
import { wrong } from '../http/problem';
import { CHUNK } from '../jobs/in-chunks';
import { HEADING_KEY_KIND, LEADS_TO } from '../store/index-records';
import type { Store } from '../store/store';
import { having } from './having';

/** What narrows a search beside its words. */
export type SearchFacets = Pick<SearchBody, 'language' | 'branch' | 'material'>;

/** A search as SQL that gives `id`s, and what its input was taken for. */
export interface Found {
  readonly tookFor: Recognition['as'];
  /** The pile or delivery that it looks through; null for the whole catalogue. */
  readonly within: string | null;
  readonly sql: string;
  readonly params: Record<string, unknown>;
  /** It finds every record. */
  readonly all?: boolean;
}

/**
 * The records a search finds: by words (all of them, each as a beginning), ISBN, barcode, call number, number of record or
 * heading, or by having what a field address (MARCspec) names; all when it is empty. `signal` ends a search that looks through all.
 */
export async function foundBy(
  store: Store,
  { q, pile, delivery }: Pick<SearchBody, 'q' | 'pile' | 'delivery'>,
  signal?: AbortSignal,
): Promise<Found> {
  const recognition = recogniseInput(q);
  const everywhere = { tookFor: recognition.as, within: null, ...(await sqlOf(store, recognition, signal)) };
  const places = [
    ...(pile ? [await onPile(store, pile)] : []),
    ...(delivery ? [await acceptedFrom(store, delivery)] : []),
  ];
  return places.reduce<Found>(
    ({ all, sql, within, ...found }, place) => ({
      ...found,
      sql: all ? place.sql : `SELECT id FROM (${sql}) INTERSECT SELECT id FROM (${place.sql})`,
      params: { ...found.params, ...place.params },
      within: within ? `${within}, ${place.within}` : place.within,
    }),
    everywhere,
  );
}

type Place = Pick<Found, 'sql' | 'params'> & { readonly within: string };

/** The records that lie on a pile, or whose copies do. */
async function onPile(store: Store, pile: number): Promise<Place> {
  const held = await store.read('pile', pile);
  if (!held) throw wrong('pile', `There is no pile ${pile}.`);
  return {
    within: `the pile ${quoted(held.value.name)}`,
    sql:
      held.value.of === 'record'
        ? "SELECT DISTINCT object AS id FROM piled WHERE pile = :pile AND kind = 'record'"
        : `SELECT DISTINCT h.record AS id FROM piled p JOIN copies c ON c.id = p.object JOIN holdings h ON h.id = c.holding
           WHERE p.pile = :pile AND p.kind = 'copy'`,
    params: { pile },
  };
}

/** The records that were accepted from a delivery, whatever became of them since. */
async function acceptedFrom(store: Store, delivery: number): Promise<Place> {
  const held = await store.read('delivery', delivery);
  if (!held) throw wrong('delivery', `There is no delivery ${delivery}.`);
  return {
    within: `the delivery ${quoted(held.value.name)}`,
    sql: `SELECT DISTINCT record AS id FROM incoming WHERE delivery = :delivery AND state = 'accepted' AND record IS NOT NULL`,
    params: { delivery },
  };
}

/** The records (`r`) of a search; what is sorted and counted by stands in an index, so that the records are not read. */
export const recordsOf = ({ sql, all }: Found): string =>
  all
    ? 'records r INDEXED BY records_sort'
    : `(${sql}) f CROSS JOIN records r INDEXED BY records_facets ON r.id = f.id`;

/** The records of a search behind an id, in the order of their ids, as SQL. */
const idsInOrder = (found: Found, facets: SearchFacets, atMost: number): string =>
  `SELECT r.id FROM ${found.all ? 'records r' : recordsOf(found)} WHERE ${facetConditions(facets)} AND r.id > :after ORDER BY r.id LIMIT ${atMost}`;

/** The records of a search behind an id, with their content. */
export async function nextFound(
  store: Store,
  found: Found,
  facets: SearchFacets,
  after: number,
): Promise<Versioned<MarcRecord>[]> {
  const ids = await nextIdsFound(store, found, facets, after);
  const held = new Map((await store.readMany('record', ids)).map((h) => [h.id, h]));
  return ids.flatMap((id) => held.get(id) ?? []);
}

/** The same, only their numbers. */
export async function nextIdsFound(
  store: Store,
  found: Found,
  facets: SearchFacets,
  after: number,
): Promise<number[]> {
  const rows = await store.rows<{ id: number }>(idsInOrder(found, facets, CHUNK), {
    ...found.params,
    ...facets,
    after,
  });
  return rows.map((r) => r.id);
}

/** How a search is told in a sentence: "what “willow”, ger finds in the pile “Trolley”". */
export function searched({ q, language, branch, material }: SearchBody, { within }: Found): string {
  const parts = [q && quoted(q), language, branch, material].filter(Boolean);
  if (parts.length) return `what ${parts.join(', ')} finds${within ? ` in ${within}` : ''}`;
  return within ?? 'the whole catalogue';
}

export const facetsOf = ({ language, branch, material }: SearchBody): SearchFacets => ({
  language,
  branch,
  material,
});

/** The conditions of facets on records (`r`). */
export function facetConditions(facets: SearchFacets): string {
  const conditions = ['1'];
  if (facets.language) conditions.push('r.language = :language');
  if (facets.material) conditions.push('r.material = :material');
  if (facets.branch)
    conditions.push('EXISTS (SELECT 1 FROM holdings h WHERE h.record = r.id AND h.branch = :branch)');
  return conditions.join(' AND ');
}

async function sqlOf(
  store: Store,
  recognition: Recognition,
  signal?: AbortSignal,
): Promise<Omit<Found, 'tookFor' | 'within'>> {
  switch (recognition.as) {
    case 'isbn':
      return {
        sql: "SELECT record AS id FROM record_keys WHERE kind = 'isbn' AND key = :key",
        params: { key: recognition.code },
      };
    case 'record':
      return { sql: 'SELECT id FROM records WHERE id = :record', params: { record: recognition.id } };
    case 'heading':
      return {
        sql: `SELECT k.record AS id FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key
              WHERE h.id = (${LEADS_TO})`,
        params: { heading: recognition.id },
      };
    case 'barcode':
      return {
        sql: 'SELECT DISTINCT h.record AS id FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.barcode = :code',
        params: { code: recognition.code },
      };
    case 'call number':
      return {
        sql: 'SELECT DISTINCT record AS id FROM holdings WHERE call_number >= :from AND call_number < :to',
        params: { from: recognition.text, to: `${recognition.text}\uffff` },
      };
    case 'field address':
      return {
        sql: 'SELECT value AS id FROM json_each(:having)',
        params: { having: JSON.stringify(await having(store, recognition.text, signal)) },
      };
  }
  const words = foldedWords(recognition.text);
  if (words.length === 0) return { sql: 'SELECT id FROM records', params: {}, all: true };
  return {
    sql: 'SELECT rowid AS id FROM record_words WHERE record_words MATCH :match',
    params: { match: words.map((w) => `"${w}"*`).join(' ') },
  };
}
