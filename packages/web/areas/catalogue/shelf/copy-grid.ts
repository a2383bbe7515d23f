import type { SeveralCopiesBody } from '@osier/contract';
import type { CallNumber } from '@osier/core/callnumbers';
import { typedPrice, WHAT_A_PRICE_IS } from '@osier/core/holdings';
import { parse } from 'papaparse';

/** The columns of the grid in which several copies are entered, as their parts of the body are called. */
export const GRID_COLUMNS = [
  'branch',
  'location',
  'prefix',
  'class',
  'item',
  'year',
  'suffix',
  'part',
  'number',
  'type',
  'barcode',
  'price',
  'fund',
  'supplier',
  'acquired',
  'note',
] as const;
export type GridColumn = (typeof GRID_COLUMNS)[number];

/** A row of the grid: what is typed in each column. */
export type GridRow = Readonly<Record<GridColumn, string>> & {
  readonly scheme: CallNumber['scheme'];
  /** It was only begun for the next scan: without one it is no copy. */
  readonly isBegun?: boolean;
};

/** A row that is the place and the kind of another one, with a barcode, a number and a part of its own still to come. */
export const rowLike = ({ isBegun: _, ...row }: GridRow): GridRow => ({
  ...row,
  barcode: '',
  number: '',
  part: '',
});

/** A row in which something was typed; another branch brings its location along: of the same code, else its first. */
export function withCell(
  { isBegun: _, ...row }: GridRow,
  column: GridColumn,
  value: string,
  locations: readonly { readonly code: string; readonly branch: string }[],
): GridRow {
  if (column !== 'branch') return { ...row, [column]: value };
  const own = locations.filter((l) => l.branch === value);
  const location = own.find((l) => l.code === row.location) ?? own[0];
  return { ...row, branch: value, location: location?.code ?? '' };
}

/** What a cell of a spreadsheet may hold, put into a column: codes in capitals as the lists have them. */
const cellOf = (column: GridColumn, text: string): string => {
  const plain = text.replace(/\s*[\r\n]+\s*/g, ' ').trim();
  return column === 'branch' || column === 'location' || column === 'type'
    ? plain.replace(/\s.*$/, '')
    : plain;
};

/**
 * Rows into which cells of a spreadsheet were pasted, from one cell on to the right over the columns that are shown and down; rows that are
 * lacking are made like the last one. Null when what was pasted is one cell, which goes into its field as any text.
 */
export function pastedInto(
  rows: readonly GridRow[],
  shown: readonly GridColumn[],
  at: { readonly row: number; readonly column: GridColumn },
  text: string,
): GridRow[] | null {
  const { data } = parse<string[]>(text.replace(/[\r\n]+$/, ''), { delimiter: '\t' });
  const cells = data.filter((line) => line.length > 0);
  if (cells.length < 2 && (cells[0]?.length ?? 0) < 2) return null;
  const first = shown.indexOf(at.column);
  const next = [...rows];
  cells.forEach((line, down) => {
    const row = at.row + down;
    const base = next[row] ?? rowLike(next[row - 1]!);
    const put = line.flatMap((cell, right) => {
      const column = shown[first + right];
      return column ? [[column, cellOf(column, cell)] as const] : [];
    });
    next[row] = { ...base, ...Object.fromEntries(put) };
  });
  return next;
}

/** Rows in which a column has from one row on down what it has there. */
export const filledDown = (rows: readonly GridRow[], from: number, column: GridColumn): GridRow[] =>
  rows.map((row, i) => (i > from ? { ...row, [column]: rows[from]![column] } : row));

/** The rows with a scanned code in the first that has none yet; in a new one like the last when all have one. */
export function withScan(rows: readonly GridRow[], code: string): { rows: GridRow[]; at: number } {
  const free = rows.findIndex((r) => r.barcode === '');
  const at = free < 0 ? rows.length : free;
  const { isBegun: _, ...row } = rows[at] ?? rowLike(rows.at(-1)!);
  return { rows: [...rows.slice(0, at), { ...row, barcode: code }, ...rows.slice(at + 1)], at };
}

/** So many rows at each of some branches, all like the first row; at a branch that has not its location, at the first that it has. */
export function rowsAt(
  first: GridRow,
  branches: readonly string[],
  each: number,
  locations: readonly { readonly code: string; readonly branch: string }[],
): GridRow[] {
  return branches.flatMap((branch) => {
    const own = locations.filter((l) => l.branch === branch);
    const location = (own.find((l) => l.code === first.location) ?? own[0])?.code ?? '';
    return Array.from({ length: each }, () => ({ ...rowLike(first), branch, location }));
  });
}

/** What the rows are sent as; what cannot be sent is told by its cell, as the server tells what it refuses. */
export function bodyOf(
  record: number,
  rows: readonly GridRow[],
  { roll, keepBarcodes }: { readonly roll: number | null; readonly keepBarcodes: boolean },
  wording: { readonly noNumber: string },
): { body: SeveralCopiesBody; problems: Record<string, string> } {
  const problems: Record<string, string> = {};
  const sent = rows.map(({ isBegun: _, ...row }, i) => {
    const price = typedPrice(row.price);
    if (price === null && row.price.trim() !== '') problems[`${i}.price`] = WHAT_A_PRICE_IS;
    const number = row.number === '' ? null : Number(row.number);
    if (number !== null && !Number.isInteger(number)) problems[`${i}.number`] = wording.noNumber;
    return {
      ...row,
      price: price?.amount ?? null,
      currency: price?.currency ?? '',
      number: number !== null && Number.isInteger(number) ? number : null,
      loanRule: 'lends' as const,
      status: 'available' as const,
    };
  });
  return { body: { record, rows: sent, roll, keepBarcodes, token: undefined }, problems };
}

/** Problems of a refusal by row and column: `rows[2].barcode` is "2.barcode". */
export const cellProblems = (
  fields: readonly { readonly field: string; readonly message: string }[],
): Record<string, string> =>
  Object.fromEntries(
    fields.flatMap(({ field, message }) => {
      const [, row, column] = /^rows\[(\d+)\]\.(\w+)$/.exec(field) ?? [];
      return row !== undefined && column ? [[`${row}.${column}`, message]] : [];
    }),
  );
