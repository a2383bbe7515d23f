import type { LookUp, RecordRow, SearchAnswer, SearchBody } from '@osier/contract';
import { nearMisses } from '@osier/core/barcodes';
import { recogniseInput } from '@osier/core/query';
import { quoted } from '../daybook/sentences';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { LEADS_TO } from '../store/index-records';
import { facetConditions, foundBy, recordsOf } from './found';

const PAGE = 100;
const FACET_VALUES = 12;
const ROW = `r.id, r.title, r.author, r.year, r.isbn, r.publisher, r.edition, r.language, r.material,
  (SELECT COUNT(*) FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.record = r.id) AS copies,
  COALESCE((SELECT call_number FROM holdings h WHERE h.record = r.id ORDER BY h.id LIMIT 1), '') AS callNumber`;

/** Searches and counts. Facet values narrow the rows, not each other's counts. */
export async function search(
  { store }: Services,
  { q, pile, delivery, ...facets }: SearchBody,
  after: number,
  signal?: AbortSignal,
): Promise<SearchAnswer> {
  const found = await foundBy(store, { q, pile, delivery }, signal);
  const { params, tookFor, within } = found;
  const from = recordsOf(found);
  const where = `WHERE ${facetConditions(facets)}`;
  const all = { ...params, ...facets };
  // Language and material are counted anyway, so that only a branch asks for a count of its own.
  const counted = facets.branch
    ? store.row<{ n: number }>(`SELECT COUNT(*) AS n FROM ${found.all ? 'records r' : from} ${where}`, all)
    : null;
  const [rows, kinds, branches, atBranch] = await Promise.all([
    store.rows<RecordRow>(
      `WITH page AS (SELECT r.id AS one, r.sort AS place FROM ${from} ${where} ORDER BY r.sort, r.id LIMIT ${PAGE + 1} OFFSET :after)
       SELECT ${ROW} FROM page CROSS JOIN records r ON r.id = page.one ORDER BY page.place, r.id`,
      { ...all, after },
    ),
    store.rows<{ language: string; material: string; n: number }>(
      `SELECT r.language, r.material, COUNT(*) AS n FROM ${found.all ? 'records r' : from} GROUP BY 1, 2`,
      params,
    ),
    store.rows<{ value: string; n: number }>(
      `SELECT h.branch AS value, COUNT(DISTINCT h.record) AS n FROM ${found.all ? 'holdings h' : `(${found.sql}) f CROSS JOIN holdings h ON h.record = f.id`} GROUP BY 1 ORDER BY 2 DESC`,
      params,
    ),
    counted,
  ]);
  const chosen = kinds.filter(
    (k) =>
      (!facets.language || k.language === facets.language) &&
      (!facets.material || k.material === facets.material),
  );
  const total = atBranch?.n ?? chosen.reduce((sum, k) => sum + k.n, 0);
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
      const rows = await store.rows<{ record: number }>(
        "SELECT record FROM record_keys WHERE kind = 'isbn' AND key = :key",
        { key: recognition.code },
      );
      if (rows.length === 1) return { as: 'record', id: rows[0]!.record, said: `ISBN ${recognition.code}` };
      if (rows.length > 1)
        return { as: 'list', q, said: `ISBN ${recognition.code}, on ${rows.length} records` };
      return { as: 'nothing', said: `ISBN ${recognition.code} is not in the catalogue.` };
    }
    case 'record':
      return (await store.read('record', recognition.id))
        ? { as: 'record', id: recognition.id, said: `Record ${recognition.id}` }
        : { as: 'nothing', said: `There is no record ${recognition.id}.` };
    case 'heading': {
      const heading = await store.read('heading', recognition.id);
      if (!heading) return { as: 'nothing', said: `There is no heading ${recognition.id}.` };
      const leads = await store.row<{ id: number }>(LEADS_TO, { heading: heading.id });
      const id = leads?.id ?? heading.id;
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
  const copy = await store.row<{ id: number; record: number }>(
    'SELECT c.id, h.record FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.barcode = :code',
    { code },
  );
  if (copy) return { as: 'record', id: copy.record, copy: copy.id, said: `Barcode ${code}` };
  const gone = (await store.select('withdrawn', 'barcode = :code ORDER BY id DESC LIMIT 1', { code }))[0]
    ?.value;
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
  if (tried.length === 0) return [];
  return (
    await store.rows<{ barcode: string }>('SELECT barcode FROM copies WHERE barcode IN (:tried) LIMIT 10', {
      tried,
    })
  ).map((r) => r.barcode);
}
