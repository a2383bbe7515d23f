import {
  cellProblems,
  bodyOf,
  filledDown,
  GRID_COLUMNS,
  pastedInto,
  rowLike,
  rowsAt,
  withScan,
  type GridRow,
} from './copy-grid';

const EMPTY = Object.fromEntries(GRID_COLUMNS.map((c) => [c, ''])) as Record<
  (typeof GRID_COLUMNS)[number],
  string
>;
const row = (more: Partial<GridRow> = {}): GridRow => ({
  ...EMPTY,
  scheme: 'dewey',
  branch: 'MR',
  location: 'OPEN',
  class: '746.41',
  type: 'BK',
  ...more,
});
const SHOWN = ['branch', 'location', 'barcode', 'price'] as const;

test('cells of a spreadsheet go to the right over what is shown and down, with new rows like the last', () => {
  const pasted = pastedInto(
    [row({ barcode: 'a', part: 'v. 1' })],
    SHOWN,
    { row: 0, column: 'location' },
    'READ\tb1\t12.50\r\nSTORE\tb2\t"8"\r\n',
  );
  expect(pasted?.map((r) => [r.branch, r.location, r.barcode, r.price, r.part, r.class])).toEqual([
    ['MR', 'READ', 'b1', '12.50', 'v. 1', '746.41'],
    ['MR', 'STORE', 'b2', '8', '', '746.41'],
  ]);
});

test('a quoted line break stays in its cell as a blank; what is beyond the last column is left out; one cell is plain text', () => {
  const pasted = pastedInto([row()], SHOWN, { row: 0, column: 'price' }, '"1\n2"\tmore\n3');
  expect(pasted?.map((r) => r.price)).toEqual(['1 2', '3']);
  expect(pastedInto([row()], SHOWN, { row: 0, column: 'barcode' }, '31204000500018\n')).toBeNull();
});

test('scans go down the column one by one, never two into one, and make rows', () => {
  let rows: GridRow[] = [row(), row({ branch: 'SH' })];
  const at: number[] = [];
  for (const code of ['1', '2', '3', '4']) {
    const next = withScan(rows, code);
    rows = next.rows;
    at.push(next.at);
  }
  expect(at).toEqual([0, 1, 2, 3]);
  expect(rows.map((r) => [r.branch, r.barcode])).toEqual([
    ['MR', '1'],
    ['SH', '2'],
    ['SH', '3'],
    ['SH', '4'],
  ]);
});

test('this call number at these branches: as many rows each, at their own locations', () => {
  const locations = [
    { code: 'OPEN', branch: 'MR' },
    { code: 'READ', branch: 'SH' },
    { code: 'OPEN', branch: 'HB' },
  ];
  expect(
    rowsAt(row({ barcode: 'x' }), ['MR', 'SH', 'HB'], 2, locations).map((r) => [
      r.branch,
      r.location,
      r.barcode,
    ]),
  ).toEqual([
    ['MR', 'OPEN', ''],
    ['MR', 'OPEN', ''],
    ['SH', 'READ', ''],
    ['SH', 'READ', ''],
    ['HB', 'OPEN', ''],
    ['HB', 'OPEN', ''],
  ]);
});

test('filling down changes what is below alone', () => {
  const rows = [row({ price: '1' }), row({ price: '2' }), row()];
  expect(filledDown(rows, 1, 'price').map((r) => r.price)).toEqual(['1', '2', '2']);
  expect(rowLike(row({ barcode: '1', part: 'v. 1', number: '2', price: '3' }))).toEqual(row({ price: '3' }));
});

test('what cannot be sent is told by its cell, as is what the server refuses', () => {
  const { body, problems } = bodyOf(
    7,
    [row({ price: 'dear', number: 'x' }), row({ price: 'EUR 2', number: '3' })],
    { roll: null, keepBarcodes: false },
    { noNumber: 'no number' },
  );
  expect(problems).toEqual({
    '0.price': expect.stringContaining('EUR 12.50') as string,
    '0.number': 'no number',
  });
  expect(body.rows.map((r) => [r.price, r.currency, r.number])).toEqual([
    [null, '', null],
    [200, 'EUR', 3],
  ]);
  expect(
    cellProblems([
      { field: 'rows[1].barcode', message: 'taken' },
      { field: 'record', message: 'x' },
    ]),
  ).toEqual({ '1.barcode': 'taken' });
});
