import type { RegisterQuery, RegisterRow } from '@osier/contract';
import { csvLine } from '@osier/core/address';
import { amountText } from '@osier/core/holdings';
import { registerWords } from '@osier/core/withdrawals';
import { cursorOf, placeIn } from '../http/cursor';
import { keptValue } from '../store/kept-json';
import type { Store } from '../store/store';
import { countRegister, registerRows, type RegisterEntry, type RegisterSearch } from './queries';

/** Rows of a page, and rows that are read at once for a file. */
const [PAGE, AT_ONCE] = [100, 1000];

const searchOf = ({ q, branch, reason, from, to }: RegisterQuery): RegisterSearch => ({
  ...{ words: registerWords(q), branch, reason, from, to },
});

const rowOf = (r: RegisterEntry): RegisterRow => ({
  ...{ id: r.id, entry: r.entry, restored: r.gone === 1 },
  withdrawn: keptValue('withdrawn', r.value),
});

/** A page of the register of what went, found and sorted. Rows whose withdrawal was undone stay, and say so. */
export async function registerPage(
  store: Store,
  query: RegisterQuery,
  cursor: string | undefined,
): Promise<{ rows: RegisterRow[]; next: string | null } & Awaited<ReturnType<typeof countRegister>>> {
  const search = searchOf(query);
  const place = placeIn<readonly [string | number, number]>(
    cursor,
    query.sort === 'price' ? [0, 0] : ['', 0],
  );
  const after = place && { key: place[0], id: place[1] };
  const order = { by: query.sort, down: query.down === 'yes', after, atMost: PAGE + 1 };
  const rows = await registerRows(store, search, order);
  const last = rows.length > PAGE ? rows[PAGE - 1] : undefined;
  return {
    rows: rows.slice(0, PAGE).map(rowOf),
    next: last ? cursorOf([last.key, last.id]) : null,
    ...(await countRegister(store, search)),
  };
}

const HEADS = [
  ...['Withdrawn', 'Barcode', 'Title', 'Author', 'Call number', 'Branch', 'Location'],
  ...[
    'Price',
    'Currency',
    'Acquired',
    'Last seen',
    'Loans',
    'Last loan',
    'Status',
    'Reason',
    'Despite',
    'Overruled',
    'List',
    'Prepared by',
    'Confirmed by',
    'Last copy',
    'Record',
    'Undone',
  ],
];

/** The register, or what is found in it, as lines of a table. */
export async function* registerLines(store: Store, query: RegisterQuery): AsyncGenerator<string> {
  yield `\ufeff${csvLine(HEADS)}`;
  const search = searchOf(query);
  const { currency } = (await store.house()).value;
  for (let after: { key: string | number; id: number } | null = null; ;) {
    const order = { by: query.sort, down: query.down === 'yes', after, atMost: AT_ONCE };
    const rows: Awaited<ReturnType<typeof registerRows>> = await registerRows(store, search, order);
    yield rows.map((r) => csvLine(cellsOf(rowOf(r), currency))).join('');
    const last = rows.at(-1);
    if (last === undefined || rows.length < AT_ONCE) return;
    after = { key: last.key, id: last.id };
  }
}

function cellsOf({ withdrawn: w, restored }: RegisterRow, currency: string): string[] {
  const { copy } = w;
  return [
    ...[w.withdrawnOn, copy.barcode, w.title, w.author ?? '', w.callNumber, w.branch, w.location],
    ...(copy.price === null ? ['', ''] : [amountText(copy.price), copy.currency ?? currency]),
    ...[copy.acquired, copy.lastSeen],
    ...[copy.loans === undefined ? '' : String(copy.loans), copy.lastLoan ?? '', copy.status],
    ...[w.reason, (w.despite ?? []).join(' '), w.overruled ?? '', w.list ?? '', w.preparedBy ?? '', w.by],
    ...[w.lastCopy ? 'yes' : '', String(w.record), restored ? 'yes' : ''],
  ];
}
