import { field, lineOf, type MarcRecord } from '../marc';
import { headingIdentity, numberForRecords, withHeadingNumbers, type HeadingUse } from '.';

const record: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: 'w1' },
    field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950,', 'e', 'author.'),
    field('245', '10', 'a', 'Tools.'),
    field('650', ' 0', 'a', 'Eels', 'x', 'Migration.'),
    field('650', ' 7', 'a', 'Eels.', '2', 'mesh'),
    field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950.', '0', '(FRN)frn7', '0', '(XYZ)1'),
  ],
};
const known = (use: HeadingUse): string | null =>
  new Map([
    ['personal names reedman, amos 1880 1950', '(FRN)frn7'],
    ['topic lcsh eels', '(FRN)frn9'],
  ]).get(headingIdentity(use)) ?? null;

test('fields get the numbers of their headings, each once; other vocabularies and what is no heading stay as they are', () => {
  const keys: string[] = [];
  const out = withHeadingNumbers(record, (use) => {
    keys.push(headingIdentity(use));
    return use.kind === 'personal' ? '(FRN)frn7' : known(use);
  });
  expect(out.fields.map((f) => lineOf(f).slice(-12))).toEqual(
    record.fields.map((f, i) => (i === 1 ? lineOf(out.fields[1]!) : lineOf(f)).slice(-12)),
  );
  expect(lineOf(out.fields[1]!)).toMatch(/\$eauthor\.\$0\(FRN\)frn7$/);
  expect(out.fields[5]).toEqual(record.fields[5]);
  expect(keys).toHaveLength(4);
  expect(withHeadingNumbers(out, () => '(FRN)frn7').fields[1]).toEqual(out.fields[1]);
});

test.each<[string, MarcRecord['fields'], string | null]>([
  [
    '001 with its agency',
    [
      { tag: '001', value: 'frn7' },
      { tag: '003', value: 'FRN' },
    ],
    '(FRN)frn7',
  ],
  ['001 without one', [{ tag: '001', value: 'frn7' }], null],
  ['010, which is of no agency in brackets', [field('010', '  ', 'a', 'n 79021164')], null],
  ['035', [field('035', '  ', 'z', '(FRN)old', 'a', '(FRN)frn8')], '(FRN)frn8'],
  ['a cancelled one alone', [field('035', '  ', 'z', '(FRN)old')], null],
])('the number of a heading with %s', (_, fields, number) =>
  expect(numberForRecords({ marc: { leader: '', fields } })).toBe(number),
);
