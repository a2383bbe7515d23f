import type { LookUp, RecordRow, SearchAnswer } from '@osier/contract';
import { nearMisses } from '@osier/core/barcodes';

import { recogniseInput, type Recognition } from '@osier/core/query';
import { foldedWords } from '@osier/core/text';
import { quoted } from '../daybook/sentences';
import type { Services } from '../services';
import type { Store } from '../store/store';

const PAGE = 100;
const ROW = `r.id, r.title, r.author, r.year, r.isbn, r.publisher, r.edition, r.language, r.material,
  (SELECT COUNT(*) FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.record = r.id) AS copies,
  COALESCE((SELECT call_number FROM holdings h WHERE h.record = r.id ORDER BY h.id LIMIT 1), '') AS callNumber`;

/** The records a search finds: by words (all of them, each as a beginning), ISBN, or call number; all when it is empty. */
function found(recognition: Recognition): { sql: string; params: Record<string, unknown>; order: string } {
  if (recognition.as === 'isbn')
    return {
      sql: "SELECT record AS id FROM record_keys WHERE kind = 'isbn' AND key = :key",
      params: { key: recognition.code },
      order: 'r.sort, r.id',
    };
  if (recognition.as === 'call number')
    return {
      sql: 'SELECT DISTINCT record AS id FROM holdings WHERE call_number >= :from AND call_number < :to',
      params: { from: recognition.text, to: `${recognition.text}\uffff` },
      order: 'r.sort, r.id',
    };
  const text =
    recognition.as === 'words' ? recognition.text : recognition.as === 'barcode' ? recognition.code : '';
  const words = foldedWords(text);
  if (words.length === 0) return { sql: 'SELECT id FROM records', params: {}, order: 'r.sort, r.id' };
  return {
    sql: 'SELECT rowid AS id FROM record_words WHERE record_words MATCH :match',
    params: { match: words.map((w) => `"${w}"*`).join(' ') },
    order: 'r.sort, r.id',
  };
}

/** Searches and counts. Facet values narrow the rows, not each other's counts. */
export async function search(
  { store }: Services,
  q: string,
  facets: { language?: string; branch?: string; material?: string },
  after: number,
): Promise<SearchAnswer> {
  const recognition = recogniseInput(q);
  const { sql, params, order } = found(recognition);
  const conditions: string[] = [];
  if (facets.language) conditions.push('r.language = :language');
  if (facets.material) conditions.push('r.material = :material');
  if (facets.branch)
    conditions.push('EXISTS (SELECT 1 FROM holdings h WHERE h.record = r.id AND h.branch = :branch)');
  const where = conditions.length ? `WHERE ${conditions.join(' AND ')}` : '';
  const all = { ...params, ...facets };
  const rows = await store.rows<RecordRow>(
    `SELECT ${ROW} FROM records r JOIN (${sql}) f ON f.id = r.id ${where} ORDER BY ${order} LIMIT ${PAGE + 1} OFFSET :after`,
    { ...all, after },
  );
  const total = (await store.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM records r JOIN (${sql}) f ON f.id = r.id ${where}`,
    all,
  ))!.n;
  const tally = async (column: string) => {
    const counts = await store.rows<{ value: string; n: number }>(
      `SELECT r.${column} AS value, COUNT(*) AS n FROM records r JOIN (${sql}) f ON f.id = r.id GROUP BY 1 ORDER BY 2 DESC LIMIT 12`,
      params,
    );
    return Object.fromEntries(counts.filter((c) => c.value).map((c) => [c.value, c.n]));
  };
  const branches = await store.rows<{ value: string; n: number }>(
    `SELECT h.branch AS value, COUNT(DISTINCT h.record) AS n FROM holdings h JOIN (${sql}) f ON f.id = h.record GROUP BY 1 ORDER BY 2 DESC`,
    params,
  );
  return {
    tookFor: recognition.as,
    total,
    rows: rows.slice(0, PAGE),
    next: rows.length > PAGE ? after + PAGE : null,
    facets: {
      language: await tally('language'),
      material: await tally('material'),
      branch: Object.fromEntries(branches.map((b) => [b.value, b.n])),
    },
  };
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
      const id = heading.value.mergedInto ?? heading.id;
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
        said: recognition.as === 'words' ? 'Words' : `Call number ${recognition.text}`,
      };
  }
}

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
