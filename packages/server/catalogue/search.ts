import type { LookUp, SearchAnswer, SearchBody } from '@osier/contract';
import { nearMisses } from '@osier/core/barcodes';
import type { StoredObject } from '@osier/core/kinds';
import { recogniseInput } from '@osier/core/query';
import { quoted } from '@osier/core/acts';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { foundBy } from './found';
import { barcodesInUse, copyWithBarcode, headingLedTo, recordsWithIsbn } from './queries';
import { countByBranch, countByKind, countFound, pageOfFound } from './queries.found';

const PAGE = 100;
const FACET_VALUES = 12;
/** Searches and counts. Facet values narrow the rows, not each other's counts. */
export async function search(
  { store }: Services,
  { q, pile, delivery, ...facets }: SearchBody,
  after: number,
  signal?: AbortSignal,
): Promise<SearchAnswer> {
  const found = await foundBy(store, { q, pile, delivery }, signal);
  const { tookFor, within } = found;
  // Language and material are counted anyway, so that only a branch asks for a count of its own.
  const counted = facets.branch ? countFound(store, found, facets) : null;
  const [rows, kinds, branches, atBranch] = await Promise.all([
    pageOfFound(store, found, facets, after, PAGE + 1),
    countByKind(store, found),
    countByBranch(store, found),
    counted,
  ]);
  const chosen = kinds.filter(
    (k) =>
      (!facets.language || k.language === facets.language) &&
      (!facets.material || k.material === facets.material),
  );
  const total = atBranch ?? chosen.reduce((sum, k) => sum + k.n, 0);
  return {
    tookFor,
    within,
    total,
    rows: rows.slice(0, PAGE),
    next: rows.length > PAGE ? after + PAGE : null,
    facets: {
      language: tally(kinds.map((k) => [k.language, k.n])),
      material: tally(kinds.map((k) => [k.material, k.n])),
      branch: Object.fromEntries(branches.map((b) => [b.value, b.n])),
    },
  };
}

/** How often each value comes, the most frequent first. */
function tally(counts: readonly (readonly [value: string, n: number])[]): Record<string, number> {
  const sums = new Map<string, number>();
  for (const [value, n] of counts) if (value) sums.set(value, (sums.get(value) ?? 0) + n);
  return Object.fromEntries([...sums].sort((a, b) => b[1] - a[1]).slice(0, FACET_VALUES));
}

/** What the scan line leads to: the thing itself when there is one, else a list, and always what the input was taken for. */
export async function lookUp(services: Services, q: string): Promise<LookUp> {
  const { store } = services;
  const recognition = recogniseInput(q, (await store.house()).value.barcode.length);
  switch (recognition.as) {
    case 'barcode':
      return lookUpBarcode(store, recognition.code);
    case 'isbn': {
      const [record, ...more] = await recordsWithIsbn(store, recognition.code);
      if (more.length > 0)
        return { as: 'list', q, said: `ISBN ${recognition.code}, on ${more.length + 1} records` };
      if (record !== undefined) return { as: 'record', id: record, said: `ISBN ${recognition.code}` };
      return { as: 'nothing', said: `ISBN ${recognition.code} is not in the catalogue.` };
    }
    case 'record':
      return (await store.read('record', recognition.id))
        ? { as: 'record', id: recognition.id, said: `Record ${recognition.id}` }
        : { as: 'nothing', said: `There is no record ${recognition.id}.` };
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
