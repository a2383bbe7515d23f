import type { LookUp, RecordOrder, SearchAnswer, SearchBody, SearchFacetCounts } from '@osier/contract';
import { nearMisses } from '@osier/core/barcodes';
import type { StoredObject } from '@osier/core/kinds';
import { isQueryText, orderOfText } from '@osier/core/find';
import { recogniseInput } from '@osier/core/query';
import { quoted } from '@osier/core/acts';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { scannedCodes } from '../copies/scanned';
import { cursorOf, placeIn } from '../http/cursor';
import { totals } from '../projections/counts';
import { countsOfFindings } from '../projections/record-findings';
import { countsOfFacet } from '../projections/record-rows';
import { foundBy, type SearchPlace } from './found';
import { meantBy } from './meant';
import { barcodesInUse, copyWithBarcode, headingLedTo, recordLedTo, recordsWithIsbn } from './queries';
import { countByBranch, countByFinding, countByKind } from './queries.found';
import { firstOrdering, pageInOrder, rowsOf, type AfterRecord } from './queries.pages';
import { amongHits, hitsOf } from './queries.hits';
import { pageRanked } from './queries.ranked';

const PAGE = 100;
const FACET_VALUES = 12;

/**
 * A page of what a search finds, with how many that is; of one that looks through all, what it has found so far where that is asked for. What has the words of a search is ranked unless an order is asked for; all else stands by its title.
 */
export async function search(
  { store }: Services,
  {
    q,
    pile,
    delivery,
    records,
    status,
    type,
    suppressed,
    sort,
    soFar,
    ...facets
  }: SearchBody & { readonly sort?: RecordOrder | undefined; readonly soFar?: 'yes' | undefined },
  cursor: string | undefined,
  signal?: AbortSignal,
): Promise<SearchAnswer> {
  const found = await foundBy(
    store,
    { q, pile, delivery, records, status, type, suppressed },
    signal,
    soFar === 'yes',
  );
  const after = cursor === undefined ? null : placeIn<AfterRecord>(cursor, [0, '', 0]);
  const isNarrowed = Object.values(facets).some(Boolean);
  const hits = found.all && !isNarrowed ? null : await hitsOf(store, found, facets);
  const page = { facets, after, atMost: PAGE + 1 };
  const isRunning = typeof found.running === 'number';
  // What is still looked for comes behind what is there.
  const order = isRunning
    ? { by: 'added' as const, descends: false }
    : sort
      ? firstOrdering(sort)
      : found.tookFor === 'query'
        ? orderOfText(q)
        : null;
  const placed = await (found.ranking && hits && !order
    ? pageRanked(store, found, hits, found.ranking, page)
    : pageInOrder(store, found, hits, order ?? firstOrdering('title'), page));
  const total = hits
    ? { total: hits.n, isMore: hits.isMany }
    : { total: (await totals(store)).records, isMore: false };
  const last = placed[PAGE - 1];
  return {
    tookFor: found.tookFor,
    within: found.within,
    meant: total.total === 0 && found.tookFor === 'words' ? await meantBy(store, q) : null,
    sortedBy: found.ranking && !order ? 'relevance' : (order?.by ?? 'title'),
    ...total,
    rows: await rowsOf(
      store,
      placed.slice(0, PAGE).map((r) => r.id),
    ),
    running: found.running ?? null,
    next: placed.length > PAGE && last && !isRunning ? cursorOf([last.rank, last.sort, last.id]) : null,
  };
}

/** Counts by facet of what a search finds. Facet values narrow the rows, not each other's counts. */
export async function searchFacets(
  { store }: Services,
  place: SearchPlace,
  signal?: AbortSignal,
): Promise<SearchFacetCounts> {
  const found = await foundBy(store, place, signal);
  if (found.all)
    return {
      language: first(await countsOfFacet(store, 'language')),
      material: first(await countsOfFacet(store, 'material')),
      branch: first(await countsOfFacet(store, 'branch')),
      finding: all(await countsOfFindings(store)),
      covers: null,
    };
  const hits = await hitsOf(store, found);
  const counted = amongHits(hits);
  const [kinds, branches, findings] = await Promise.all([
    countByKind(store, counted),
    countByBranch(store, counted),
    countByFinding(store, counted),
  ]);
  return {
    language: tally(kinds.map((k) => [k.language, k.n])),
    material: tally(kinds.map((k) => [k.material, k.n])),
    branch: all(branches),
    finding: all(findings),
    covers: hits.isMany ? hits.n : null,
  };
}

const all = (counts: readonly { value: string; n: number }[]): Record<string, number> =>
  Object.fromEntries(counts.map((c) => [c.value, c.n]));
const first = (counts: readonly { value: string; n: number }[]): Record<string, number> =>
  tally(counts.map((c) => [c.value, c.n]));

/** How often each value comes, the most frequent first. */
function tally(counts: readonly (readonly [value: string, n: number])[]): Record<string, number> {
  const sums = new Map<string, number>();
  for (const [value, n] of counts) if (value) sums.set(value, (sums.get(value) ?? 0) + n);
  return Object.fromEntries([...sums].sort((a, b) => b[1] - a[1]).slice(0, FACET_VALUES));
}

/** No barcode is longer. */
const LONGEST_SCAN = 60;

/** What the scan line leads to: the thing itself when there is one, else a list, and always what the input was taken for. */
export async function lookUp(services: Services, q: string): Promise<LookUp> {
  const { store } = services;
  // A code as it was scanned comes before whatever else it may be taken for.
  const [scan] = q.length <= LONGEST_SCAN ? await scannedCodes(store, [q]) : [];
  const named = scan ? await copyWithBarcode(store, scan) : undefined;
  if (named && scan) return { as: 'record', id: named.record, copy: named.id, said: `Barcode ${scan}` };
  if (isQueryText(q)) return { as: 'list', q, said: 'Query' };
  const recognition = recogniseInput(q, (await store.house()).value.barcodes);
  switch (recognition.as) {
    case 'barcode':
      return lookUpBarcode(store, recognition.code);
    case 'isbn': {
      const [record, ...more] = await recordsWithIsbn(store, recognition.code);
      if (more.length > 0)
        return { as: 'list', q, said: `ISBN ${recognition.code}, on ${more.length + 1} records` };
      if (record !== undefined) return { as: 'record', id: record, said: `ISBN ${recognition.code}` };
      return {
        as: 'unknown',
        q: recognition.code,
        said: `ISBN ${recognition.code} is not in the catalogue.`,
      };
    }
    case 'record':
      return lookUpRecord(store, recognition.id);
    case 'heading': {
      const heading = await store.read('heading', recognition.id);
      if (!heading) return { as: 'nothing', said: `There is no heading ${recognition.id}.` };
      const id = await headingLedTo(store, heading.id);
      return {
        as: 'heading',
        id,
        said: id === heading.id ? `Heading ${id}` : `Heading ${heading.id}, which was merged into ${id}`,
      };
    }
    default:
      return {
        as: 'list',
        q: recognition.text,
        said: SAID[recognition.as](recognition.text),
      };
  }
}

const SAID = {
  words: () => 'Words',
  'call number': (text: string) => `Call number ${text}`,
  'field address': (text: string) => `Records that have ${text}`,
};

async function lookUpBarcode(store: Store, code: string): Promise<LookUp> {
  const copy = await copyWithBarcode(store, code);
  if (copy) return { as: 'record', id: copy.record, copy: copy.id, said: `Barcode ${code}` };
  const gone = (await lastWithdrawn(store, code))?.value;
  if (gone)
    return {
      as: 'withdrawn',
      said: `Barcode ${code} was withdrawn on ${gone.withdrawnOn}: ${quoted(gone.title)}.`,
    };
  const near = await nearBarcodes(store, code);
  return {
    as: 'nothing',
    said: `No copy has the barcode ${code}.${near.length ? ` Nearly the same: ${near.slice(0, 3).join(', ')}.` : ''}`,
  };
}

/** Barcodes in use that a scan may have been meant for. */
export async function nearBarcodes(store: Store, code: string): Promise<string[]> {
  const tried: string[] = [];
  nearMisses(code, (c) => (tried.push(c), false));
  return tried.length === 0 ? [] : barcodesInUse(store, tried);
}

/** The last time that a barcode was withdrawn, or undefined. */
export const lastWithdrawn = async (
  store: Store,
  barcode: string,
): Promise<StoredObject<'withdrawn'> | undefined> =>
  (await store.find('withdrawn', { where: { barcode }, order: [['id', 'DESC']], limit: 1 }))[0];

/** A record by its number, or the one that the number leads to. */
async function lookUpRecord(store: Store, id: number): Promise<LookUp> {
  if (await store.read('record', id)) return { as: 'record', id, said: `Record ${id}` };
  const kept = await recordLedTo(store, id);
  return kept === null
    ? { as: 'nothing', said: `There is no record ${id}.` }
    : { as: 'record', id: kept, said: `Record ${id}, which was merged into ${kept}` };
}
