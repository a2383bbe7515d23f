import { DEFAULT_HOUSE } from '../house';
import { field, type Field, type MarcRecord } from '../marc';
import {
  copiesFrom,
  copyName,
  mappingProblems,
  NO_DEFAULTS,
  readPrice,
  STANDARD_MAPPING,
  type CodeLists,
  type CopyRules,
} from '.';

const lists: CodeLists = {
  branches: [
    { code: 'MR', name: 'Millrace' },
    { code: 'SH', name: 'Sedge House' },
  ],
  locations: [
    { code: 'OPEN', name: 'Open shelves', branch: 'MR' },
    { code: 'READ', name: 'Reading room', branch: 'SH' },
  ],
  types: [
    { code: 'BK', name: 'Book', price: 1800 },
    { code: 'VI', name: 'Video', price: null },
  ],
  funds: [
    { code: 'GEN', name: 'General fund' },
    { code: 'HOLT', name: 'Holt bequest' },
  ],
  suppliers: [{ code: 'TP', name: 'Tallow & Pike' }],
};
const rules = (more: Partial<CopyRules> = {}): CopyRules => ({
  mapping: STANDARD_MAPPING,
  defaults: { ...NO_DEFAULTS, type: 'BK' },
  house: DEFAULT_HOUSE,
  lists,
  ...more,
});
const record = (...fields: Field[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    field('082', '04', 'a', '746.4123', '2', '23'),
    field('100', '1 ', 'a', 'Reedman, Amos'),
    field('245', '10', 'a', 'Eels'),
    ...fields,
  ],
});

test.each([
  ['£24.99', 2499, 'GBP'],
  ['24,99 EUR', 2499, 'EUR'],
  ['$15', 1500, 'USD'],
  ['GBP 1,250.00 (set)', 125000, 'GBP'],
  ['1.234,50 €', 123450, 'EUR'],
  ['12.50', 1250, ''],
  ['49,- €', 4900, 'EUR'],
  ['39.90 zł', 3990, 'PLN'],
])('the price in “%s” is %p %s', (text, amount, currency) =>
  expect(readPrice(text)).toEqual({ amount, currency }),
);
test.each(['', 'free', '£12.50 (pbk.), £30.00 (hbk.)', 'pbk.'])('there is no one price in “%s”', (text) =>
  expect(readPrice(text)).toBeNull(),
);

test('one copy for each 852, call number cut and made by house style', () => {
  const [copy, second] = copiesFrom(
    record(
      field('852', '1 ', 'b', 'MR', 'c', 'OPEN', 'p', '3 1204 0005 0001 7'),
      field('852', '1 ', 'b', 'SH', 'c', 'READ', 'h', '746.41', 'i', 'REE', 'p', '31204000500025', 't', '4'),
    ),
    rules(),
  );
  expect(copy).toMatchObject({
    branch: 'MR',
    location: 'OPEN',
    class: '746.41',
    item: 'REE',
    barcode: '31204000500017',
    number: 1,
    type: 'BK',
    price: 1800,
    problems: [],
  });
  expect(second).toMatchObject({ branch: 'SH', scheme: 'dewey', number: 4 });
});
test('pairs of 852 and 876: by link, else in order; price and number from 876', () => {
  const copies = copiesFrom(
    record(
      field('852', '1 ', '8', '1', 'b', 'MR', 'c', 'OPEN', 'h', '746.4'),
      field('852', '1 ', '8', '2', 'b', 'SH', 'c', 'READ', 'h', '746.4'),
      field('876', '  ', '8', '2.1', 'p', '31204000500025', 'c', '£9.50', 't', '2'),
      field('876', '  ', '8', '1.1', 'p', '31204000500017'),
      field('876', '  ', '8', '2.2', 'p', '31204000500033'),
    ),
    rules(),
  );
  expect(copies.map((c) => [c.branch, c.barcode, c.price, c.number])).toEqual([
    ['SH', '31204000500025', 950, 2],
    ['MR', '31204000500017', 1800, 2],
    ['SH', '31204000500033', 1800, 3],
  ]);
});
test('copies of a work in volumes are counted within each volume (876 $3, or 852 $3)', () => {
  const volumes = copiesFrom(
    record(
      field('852', '1 ', '8', '1', 'b', 'MR', 'c', 'OPEN', 'h', '746.4', '3', 'v. 9'),
      ...[
        ['1.1', 'v. 1'],
        ['1.2', 'V.1'],
        ['1.3', 'v. 2'],
        ['1.4', ''],
      ].map(([link, part]) => field('876', '  ', '8', link!, ...(part ? ['3', part] : []))),
      field('876', '  ', '8', '1.5', '3', 'v. 2', 't', '5'),
    ),
    rules(),
  );
  expect(volumes.map(copyName)).toEqual([
    'v. 1, copy 1',
    'V.1, copy 2',
    'v. 2, copy 1',
    'v. 9, copy 1',
    'v. 2, copy 5',
  ]);
  const [whole] = copiesFrom(record(field('852', '1 ', 'b', 'MR', 'c', 'OPEN')), rules());
  expect(whole).not.toHaveProperty('part');
});
const local: CopyRules['mapping'] = {
  tag: '949',
  subfields: { branch: 'b', location: 'l', type: 't', barcode: 'p', price: 'c', copies: 'x' },
  tables: { branch: { MILL: 'MR' }, location: { OP: 'OPEN' }, type: { DVD: 'VI' } },
};
test('a local field with the supplier’s own codes, several copies of one field', () => {
  const copies = copiesFrom(
    record(field('949', '  ', 'b', 'MILL', 'l', 'OP', 't', 'DVD', 'p', '31204000500017', 'x', '2')),
    rules({ mapping: local }),
  );
  expect(copies.map((c) => [c.branch, c.location, c.type, c.barcode, c.price])).toEqual([
    ['MR', 'OPEN', 'VI', '31204000500017', null],
    ['MR', 'OPEN', 'VI', '', null],
  ]);
});
test('a part may stand anywhere in the record, named by a field address', () => {
  const mapping = {
    ...local,
    subfields: { ...local.subfields, price: '020$c', note: '500$a{$a~\\Wickmere}', branch: '949$b[0]/0-1' },
  };
  const [copy] = copiesFrom(
    record(
      field('020', '  ', 'c', '£7.50'),
      field('500', '  ', 'a', 'Index.'),
      field('500', '  ', 'a', 'For Wickmere.'),
      field('949', '  ', 'b', 'MRX', 'l', 'OPEN', 't', 'BK', 'c', '£99'),
    ),
    rules({ mapping }),
  );
  expect(copy).toMatchObject({ branch: 'MR', price: 750, note: 'For Wickmere.', problems: [] });
});
test.each<[string, Field, RegExp]>([
  [
    'a location nobody knows',
    field('949', '  ', 'b', 'MILL', 'l', 'TOWER', 't', 'BK'),
    /“TOWER” is not a location here/,
  ],
  ['small letters', field('949', '  ', 'b', 'mr', 'l', 'OPEN', 't', 'BK'), /“mr” is not a branch here/],
  ['an unknown type', field('949', '  ', 'b', 'MR', 'l', 'OPEN', 't', 'XX'), /“XX” is not a type here/],
])('%s is a problem of the copy', (_, f, said) =>
  expect(copiesFrom(record(f), rules({ mapping: local }))[0]!.problems.join()).toMatch(said),
);
test.each([
  ['BEQ', 'HOLT', ''],
  ['', 'GEN', ''],
  ['GEN', 'GEN', ''],
  ['holt', 'holt', '“holt” is not a fund here. Nearest: HOLT (Holt bequest) or GEN (General fund).'],
])('the fund %p of a record is ours: %p', (theirs, fund, problem) => {
  const mapping = {
    ...local,
    subfields: { ...local.subfields, fund: 'f' },
    tables: { ...local.tables, fund: { BEQ: 'HOLT' } },
  };
  const given = field('949', '  ', 'b', 'MR', 'l', 'OPEN', 't', 'BK', 'f', theirs);
  const defaults = { ...NO_DEFAULTS, fund: 'GEN', supplier: 'TP' };
  const [copy] = copiesFrom(record(given), rules({ mapping, defaults }));
  expect(copy).toMatchObject({ fund, supplier: 'TP', problems: problem ? [problem] : [] });
});
test('a field with several barcodes stands for as many copies, or more where it says so', () => {
  const given = field('949', '  ', 'b', 'MR', 'l', 'OPEN', 'p', '31204000500017', 'p', '3 1204 00050002 5');
  const barcodes = (f: Field) => copiesFrom(record(f), rules({ mapping: local })).map((c) => c.barcode);
  expect(barcodes(given)).toEqual(['31204000500017', '31204000500025']);
  expect(barcodes({ ...given, subfields: [...given.subfields, { code: 'x', value: '3' }] })).toEqual([
    '31204000500017',
    '31204000500025',
    '',
  ]);
});
test('a fund or supplier that the defaults name and the lists do not is a problem of the copy', () => {
  const defaults = {
    ...NO_DEFAULTS,
    branch: 'MR',
    location: 'OPEN',
    type: 'BK',
    copies: 1,
    fund: 'X',
    supplier: 'Y',
  };
  expect(copiesFrom(record(), rules({ defaults }))[0]!.problems).toEqual([
    '“X” is not a fund here. Nearest: GEN (General fund) or HOLT (Holt bequest).',
    expect.stringMatching(/^“Y” is not a supplier here/),
  ]);
});
test('no class number anywhere is told', () => {
  const bare = {
    ...record(),
    fields: [field('245', '10', 'a', 'X'), field('949', '  ', 'b', 'MR', 'l', 'OPEN')],
  };
  expect(copiesFrom(bare, rules({ mapping: local }))[0]!.problems).toEqual([
    'There is no class number in the record to build a call number from.',
  ]);
});
test('a price in another currency keeps it; three letters that are no currency are told', () => {
  const copy = (text: string) =>
    copiesFrom(record(field('949', '  ', 'b', 'MR', 'l', 'OPEN', 'c', text)), rules({ mapping: local }))[0]!;
  expect(copy('€24.90')).toMatchObject({ price: 2490, currency: 'EUR', remarks: [] });
  expect(copy('GBP 24.90')).toMatchObject({ price: 2490, remarks: [] });
  expect(copy('GBP 24.90')).not.toHaveProperty('currency');
  expect(copy('PBK 24.90')).toMatchObject({
    price: 1800,
    remarks: ['The price “PBK 24.90” was not taken: PBK is no currency (ISO 4217).'],
  });
});
test('of several prices of a title the one in the library’s own currency is taken', () => {
  const cost = (...texts: string[]) => {
    const [copy] = copiesFrom(
      record(
        field('949', '  ', 'b', 'MR', 'l', 'OPEN'),
        ...texts.map((text) => field('020', '  ', 'c', text)),
      ),
      rules({ mapping: local }),
    );
    return [copy!.price, copy!.currency];
  };
  expect(cost('$15.00', '£9.99')).toEqual([999, undefined]);
  expect(cost('$15.00', '€14.00')).toEqual([1500, 'USD']);
});
test('prices of 365 and 020 where the copy has none', () => {
  const price = (...more: Field[]) =>
    copiesFrom(record(field('949', '  ', 'b', 'MR', 'l', 'OPEN'), ...more), rules({ mapping: local }))[0]!
      .price;
  expect(price(field('020', '  ', 'c', '£7.00'))).toBe(700);
  expect(price(field('365', '  ', 'b', '12.00', 'c', 'GBP'), field('020', '  ', 'c', '£7.00'))).toBe(1200);
});
test('without copy data as many as the defaults say, at the default place', () => {
  const defaults = { ...NO_DEFAULTS, branch: 'MR', location: 'OPEN', type: 'BK', copies: 2 };
  expect(copiesFrom(record(), rules({ defaults })).map((c) => [c.branch, c.number, c.barcode])).toEqual([
    ['MR', 1, ''],
    ['MR', 2, ''],
  ]);
  expect(copiesFrom(record(), rules())).toEqual([]);
});
test.each([
  ['p', []],
  ['020$c', []],
  ['P', ['“P” is not a subfield code: one small letter or digit.']],
  ['020$', [expect.stringMatching(/^“020\$” is not a field address: /) as string]],
])('a part that is read from %s', (price, messages) =>
  expect(mappingProblems({ ...local, subfields: { price } }).map((p) => p.message)).toEqual(messages),
);
test.each([
  ['008', 'mapping.tag'],
  ['85', 'mapping.tag'],
])('%s is no tag to read copies from', (tag, at) =>
  expect(mappingProblems({ ...STANDARD_MAPPING, tag })[0]!.field).toBe(at),
);
