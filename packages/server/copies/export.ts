import type { CopyListRow, CopySearch } from '@osier/contract';
import { csvLine } from '@osier/core/address';
import { amountText, localOf } from '@osier/core/holdings';
import type { MarcRecord } from '@osier/core/marc';
import type { Response } from 'express';
import { wrong } from '../http/problem';
import { sendPieces } from '../http/send-pieces';
import { recordFormat } from './record-formats';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { copiesFound, listRow } from './list';
import { localFieldsOf } from './local-fields';
import { withTheirHoldings, type HoldingsAs } from './with-holdings';
import { pageOfCopies, titlesFound, type AfterCopy, type CopyQuery } from './queries.list';

/** Rows, or titles, that are read at once. */
const AT_ONCE = 500;

/** The columns of the table; the second argument is the currency of the library. */
const COLUMNS: readonly (readonly [string, (row: CopyListRow, currency: string) => string])[] = [
  ['record', (r) => String(r.record)],
  ['title', (r) => r.title],
  ['name', (r) => r.author],
  ['branch', (r) => r.branch],
  ['location', (r) => r.location],
  ['call number', (r) => r.callNumber],
  ['barcode', (r) => r.barcode],
  ['part', (r) => r.part],
  ['copy number', (r) => (r.number ? String(r.number) : '')],
  ['type', (r) => r.type],
  ['status', (r) => r.status],
  ['price', (r) => (r.price === null ? '' : amountText(r.price))],
  ['currency', (r, currency) => (r.price === null ? '' : r.currency || currency)],
  ['fund', (r) => r.fund],
  ['supplier', (r) => r.supplier],
  ['acquired', (r) => r.acquired],
  ['last seen', (r) => r.lastSeen],
  ['loans', (r) => (r.loans === null ? '' : String(r.loans))],
  ['last loan', (r) => r.lastLoan],
];

async function* tableOf(store: Store, found: CopyQuery): AsyncGenerator<string> {
  // A byte order mark, because spreadsheets take a file without it for another encoding.
  const fields = await localFieldsOf(store);
  const { currency } = (await store.house()).value;
  const columns = [
    ...COLUMNS,
    ...fields.map((f) => [f.value.name, (row: CopyListRow) => localOf(row, f.id)] as const),
  ];
  yield `\ufeff${csvLine(columns.map(([name]) => name))}`;
  for (let after: AfterCopy | null = null; ;) {
    const rows = await pageOfCopies(store, found, { sort: 'shelf', down: false, after, atMost: AT_ONCE });
    yield rows.map((row) => csvLine(columns.map(([, of]) => of(listRow(row, fields), currency)))).join('');
    const last = rows.at(-1);
    if (rows.length < AT_ONCE || !last) return;
    after = [last.sorted, last.id];
  }
}

/** The records of the copies found, each with its holdings as they are wanted, in the order of their numbers. */
async function* recordsOf(store: Store, found: CopyQuery, as: HoldingsAs): AsyncGenerator<MarcRecord[]> {
  const house = (await store.house()).value;
  for (let after = 0; ;) {
    const ids = await titlesFound(store, found, after, AT_ONCE);
    const last = ids.at(-1);
    if (last === undefined) return;
    after = last;
    yield withTheirHoldings(store, await store.readMany('record', ids), as, house);
  }
}

/** The copies found as a table, or their records with holdings in them, beside them, or without. */
export async function exportCopies(
  { store: { aside: store } }: Services,
  search: CopySearch,
  as: string,
  holdings: HoldingsAs,
  res: Response,
): Promise<undefined> {
  const found = await copiesFound(store, search);
  if (as === 'csv') return sendPieces(res, 'copies.csv', 'text/csv; charset=utf-8', tableOf(store, found));
  const format = recordFormat(as);
  if (format)
    return sendPieces(
      res,
      `copies.${format.ending}`,
      format.media,
      format.write(recordsOf(store, found, holdings)),
    );
  throw wrong('as', `There is no format “${as}”: csv, iso2709 or marcxml.`);
}
