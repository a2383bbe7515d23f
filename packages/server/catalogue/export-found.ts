import type { RecordRow, SearchBody } from '@osier/contract';
import { csvLine } from '@osier/core/address';
import { codeName } from '@osier/core/format';
import type { MarcRecord } from '@osier/core/marc';
import type { Response } from 'express';
import { recordFormat } from '../copies/record-formats';
import { withTheirHoldings, type HoldingsAs } from '../copies/with-holdings';
import { wrong } from '../http/problem';
import { sendPieces } from '../http/send-pieces';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { facetsOf, foundBy, type FoundRecords } from './found';
import { idsBehind, type SearchFacets } from './queries.found';
import { rowsOf } from './queries.pages';

/** Numbers that are looked for at once, and records that are read at once. */
const NUMBERS = 20_000;
const AT_ONCE = 500;

const COLUMNS: readonly (readonly [string, (row: RecordRow) => string])[] = [
  ['record', (r) => String(r.id)],
  ['title', (r) => r.title],
  ['name', (r) => r.author],
  ['edition', (r) => r.edition],
  ['publisher', (r) => r.publisher],
  ['year', (r) => r.year],
  ['isbn', (r) => r.isbn],
  ['language', (r) => codeName('languages', r.language) ?? r.language],
  ['type of record', (r) => r.material],
  ['call number', (r) => r.callNumber],
  ['copies', (r) => String(r.copies)],
];

/** What a search finds, in the order of its records' numbers, a piece at a time. */
async function* numbersOf(store: Store, found: FoundRecords, facets: SearchFacets): AsyncGenerator<number[]> {
  for (let after = 0; ;) {
    const ids = await idsBehind(store, found, facets, after, NUMBERS);
    for (let at = 0; at < ids.length; at += AT_ONCE) yield ids.slice(at, at + AT_ONCE);
    if (ids.length < NUMBERS) return;
    after = ids.at(-1)!;
  }
}

async function* tableOf(store: Store, numbers: AsyncIterable<number[]>): AsyncGenerator<string> {
  // A byte order mark, because spreadsheets take a file without it for another encoding.
  yield `\ufeff${csvLine(COLUMNS.map(([name]) => name))}`;
  for await (const ids of numbers)
    yield (await rowsOf(store, ids)).map((row) => csvLine(COLUMNS.map(([, of]) => of(row)))).join('');
}

async function* recordsOf(
  store: Store,
  numbers: AsyncIterable<number[]>,
  holdings: HoldingsAs,
): AsyncGenerator<MarcRecord[]> {
  const house = (await store.house()).value;
  for await (const ids of numbers)
    yield withTheirHoldings(store, await store.readMany('record', ids), holdings, house);
}

/** All that a search finds as a file, written as it is read: a table (csv), or records (iso2709, marcxml) with holdings as they are wanted. */
export async function exportFound(
  { store: { aside: store } }: Services,
  search: SearchBody,
  as: string,
  holdings: HoldingsAs,
  res: Response,
  signal: AbortSignal,
): Promise<undefined> {
  const format = recordFormat(as);
  if (as !== 'csv' && !format) throw wrong('as', `There is no format “${as}”: csv, iso2709 or marcxml.`);
  const found = await foundBy(store, search, signal);
  const numbers = numbersOf(store, found, facetsOf(search));
  return format
    ? sendPieces(
        res,
        `records.${format.ending}`,
        format.media,
        format.write(recordsOf(store, numbers, holdings)),
      )
    : sendPieces(res, 'records.csv', 'text/csv; charset=utf-8', tableOf(store, numbers));
}
