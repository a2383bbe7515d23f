import { DEFAULT_HOUSE } from '../house';
import { field, isData, lineOf, type MarcRecord } from '../marc';
import {
  copiesFrom,
  holdingsRecords,
  NO_DEFAULTS,
  STANDARD_MAPPING,
  withHoldings,
  type Copy,
  type Holding,
  type OnShelf,
} from '.';

const record: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: 'w12' },
    field('245', '10', 'a', 'Eels'),
    field('852', '  ', 'b', 'OLD', 'h', '1'),
    field('901', '  ', 'a', 'ours'),
  ],
};
const holding = (id: number, parts: Partial<Holding> = {}) => ({
  id,
  version: 1,
  value: {
    ...{ record: 12, branch: 'MR', location: 'OPEN', scheme: 'dewey', prefix: 'Q', class: '746.4' },
    ...{ item: 'HOL', year: '1998', suffix: 'f', note: 'Signed.', staffNote: 'Top shelf.' },
    ...parts,
  } as Holding,
});
const copy = (id: number, of: number, parts: Partial<Copy> = {}) => ({
  id,
  version: 1,
  value: {
    ...{ holding: of, barcode: `3120400051771${id}`, number: id, type: 'BK', price: 1250, fund: 'GEN' },
    ...{
      supplier: 'WTH',
      acquired: '2026-03-02',
      condition: 'worn',
      note: 'Ex-library',
      status: 'available',
    },
    ...{ staffNote: 'Stamped', loanRule: 'reference', lastSeen: '' },
    ...parts,
  } as Copy,
});
const standing: OnShelf = {
  holdings: [holding(5), holding(6, { location: 'STO', scheme: 'own', year: '' })],
  copies: [copy(1, 5), copy(2, 5, { part: 'v. 2', price: null })],
  currency: 'GBP',
};
const lines = (marc: MarcRecord) => marc.fields.map((f) => lineOf(f));

test('a record has its holdings in pairs of 852 and 876 in their place, and none that are stale', () => {
  const out = withHoldings(record, standing);
  expect(out.fields.map((f) => f.tag)).toEqual(['001', '245', '852', '876', '852', '876', '852', '901']);
  expect(lines(out).slice(2, 7)).toEqual([
    expect.stringContaining(
      '$81$bMR$cOPEN$kQ$h746.4$iHOL 1998$mf$p31204000517711$qworn$t1$xTop shelf.$zSigned.',
    ),
    expect.stringContaining(
      '$81$cGBP 12.50$d20260302$eWTH$hreference$javailable$p31204000517711$t1$xStamped$zEx-library',
    ),
    expect.stringContaining('$82$3v. 2$bMR'),
    expect.stringContaining('$82$3v. 2$d20260302'),
    expect.stringContaining('$83$bMR$cSTO$kQ$h746.4$iHOL$mf$xTop shelf.$zSigned.'),
  ]);
});

test('what was written is read again as the same copies', () => {
  const lists = {
    branches: [{ code: 'MR', name: 'Millrace' }],
    locations: [{ code: 'OPEN', name: 'Open', branch: 'MR' }],
    types: [{ code: 'BK', name: 'Book', price: null }],
    ...{ funds: [], suppliers: [] },
  };
  const abroad = copy(3, 5, { price: 999, currency: 'EUR' });
  const out = withHoldings(record, {
    ...standing,
    ...{ holdings: [holding(5)], copies: [...standing.copies, abroad] },
  });
  const read = copiesFrom(out, {
    mapping: STANDARD_MAPPING,
    defaults: { ...NO_DEFAULTS, type: 'BK' },
    house: DEFAULT_HOUSE,
    lists,
  });
  expect(read).toMatchObject([
    {
      barcode: '31204000517711',
      number: 1,
      price: 1250,
      prefix: 'Q',
      class: '746.4',
      suffix: 'f',
      note: 'Ex-library',
    },
    { barcode: '31204000517712', number: 2, part: 'v. 2', price: null },
    { barcode: '31204000517713', number: 3, price: 999, currency: 'EUR' },
  ]);
  expect(read[0]).not.toHaveProperty('currency');
  expect(read.map((c) => c.problems)).toEqual([[], [], []]);
});

// MARC 21 Format for Holdings Data: leader 6, 004, 008 with 32 characters, 853 and 863 linked by $8, 866 in words.
test('holdings as records of their own: parts counted under one caption, or in words', () => {
  const volumes = [copy(1, 5, { part: 'v. 1' }), copy(2, 5, { part: 'v. 2' })];
  const [counted] = holdingsRecords(
    12,
    record,
    { ...standing, holdings: [holding(5)], copies: volumes },
    '2026-11-28',
  );
  expect([counted!.leader.length, counted!.leader[6], counted!.leader.slice(17, 19)]).toEqual([
    24,
    'v',
    'un',
  ]);
  const control = counted!.fields.flatMap((f) => (isData(f) ? [] : [[f.tag, f.value]]));
  expect(control.slice(0, 2)).toEqual([
    ['001', '12-5'],
    ['004', 'w12'],
  ]);
  expect(control[2]![1]).toMatch(/^261128.{26}$/);
  expect(counted!.fields.map((f) => f.tag).slice(3)).toEqual(['852', '853', '863', '863', '876', '876']);
  expect(lines(counted!).slice(4, 8)).toEqual([
    expect.stringContaining('$81$av.'),
    expect.stringContaining('$81.1$a1'),
    expect.stringContaining('$81.2$a2'),
    expect.stringContaining('$81.1$3v. 1'),
  ]);
  const odd = [copy(1, 5, { part: 'Atlas' }), copy(2, 5, { part: 'v. 2' })];
  const [worded, single] = holdingsRecords(12, record, { ...standing, copies: odd }, '2026-11-28');
  expect(lines(worded!)[4]).toContain('$80$aAtlas, v. 2');
  expect([single!.leader[6], single!.fields.map((f) => f.tag)]).toEqual(['x', ['001', '004', '008', '852']]);
});

test('what 852 and 876 say of a copy is read by name, and what cannot be taken is told', () => {
  const lists = {
    branches: [{ code: 'MR', name: 'Millrace' }],
    locations: [{ code: 'OPEN', name: 'Open', branch: 'MR' }],
    types: [{ code: 'BK', name: 'Book', price: null }],
    funds: [],
    suppliers: [{ code: 'WTH', name: 'Withy Books' }],
  };
  const read = (marc: MarcRecord) =>
    copiesFrom(marc, {
      mapping: STANDARD_MAPPING,
      defaults: { ...NO_DEFAULTS, type: 'BK' },
      house: DEFAULT_HOUSE,
      lists,
    });
  const out = withHoldings(record, { ...standing, holdings: [holding(5)] });
  expect(read(out)[0]).toMatchObject({
    supplier: 'WTH',
    acquired: '2026-03-02',
    condition: 'worn',
    loanRule: 'reference',
    staffNote: 'Stamped',
    status: 'available',
    remarks: [],
  });
  const theirs: MarcRecord = {
    ...record,
    fields: [
      field('852', '1 ', '8', '1', 'b', 'MR', 'c', 'OPEN', 'h', '746.4'),
      field(
        '876',
        '  ',
        '8',
        '1',
        'd',
        '2026.13.40',
        'e',
        'Withy Books',
        'h',
        'Not for loan',
        'j',
        'Checked out',
        'p',
        'B1',
      ),
    ],
  };
  const [copyOfTheirs] = read(theirs);
  expect(copyOfTheirs).toMatchObject({ supplier: 'WTH', status: 'available' });
  expect(copyOfTheirs).not.toHaveProperty('acquired');
  expect(copyOfTheirs!.remarks).toEqual([
    expect.stringContaining('“2026.13.40” is not a day'),
    expect.stringContaining('“Not for loan” is not a loan rule'),
    expect.stringContaining('“Checked out” is not a status'),
  ]);
});

test('local fields are notes for the staff, each under its name; one that is no longer there is not written', () => {
  const [only] = [
    copy(1, 5, {
      local: [
        { field: 3, value: 'Rebound' },
        { field: 9, value: 'gone' },
      ],
    }),
  ];
  const out = withHoldings(record, {
    ...standing,
    ...{ holdings: [holding(5)], copies: [only], currency: 'GBP' },
    fields: [{ id: 3, value: { name: 'Binding', form: 'text', choices: [], types: [] } }],
  });
  expect(lines(out)[3]).toContain('$xStamped$xBinding: Rebound$zEx-library');
  expect(lines(out)[3]).not.toContain('gone');
});
