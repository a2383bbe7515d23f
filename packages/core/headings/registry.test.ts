import { field, type MarcRecord } from '../marc';
import { isCql, parseCql } from '../query';
import fc from 'fast-check';
import {
  numberIn,
  numbersQuery,
  registryName,
  registryNews,
  registryQuery,
  suggestedForm,
  type Heading,
} from '.';

const record = (...fields: MarcRecord['fields']): MarcRecord => ({
  leader: '00000nz  a2200000n  4500',
  fields: [
    { tag: '001', value: 'frn000007' },
    { tag: '003', value: 'FRN' },
    { tag: '008', value: '260115n| azannaabn          |a aaa      ' },
    ...fields,
  ],
});
const REEDMAN = record(
  field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950'),
  field('400', '1 ', 'a', 'Reedman, A.'),
  field('670', '  ', 'a', 'Tools, 1912: title page', 'b', '(Amos Reedman)'),
  field('990', '  ', 'a', 'Reedman, A.', 'n', '3'),
  field('990', '  ', 'a', 'Reedman, Amos, 1880-1950', 'n', '41'),
  field('990', '  ', 'a', 'Reedman', 'n', 'many'),
);

test.each([
  ['Reedman, Amos J.', ['reedman*', 'amos*', 'j*']],
  ['Über, Ö*', ['uber*', 'o*']],
])('a name (%s) is asked for by its words, each of which may go on', (name, terms) => {
  const query = registryQuery(name)!;
  expect([...query.matchAll(/bath\.name = "?([^" ]+)/g)].map((m) => m[1])).toEqual(terms);
  expect(isCql(parseCql(query))).toBe(true);
});
test('whatever is typed makes a query that can be read, or none', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 80 }), (typed) => {
      for (const query of [registryQuery(typed), numbersQuery([typed || 'x'])])
        if (query !== null) expect(isCql(parseCql(query))).toBe(true);
    }),
  ));
test('a name without words asks for nothing', () => expect(registryQuery(' -- ')).toBeNull());
test('numbers are asked for together, twenty at most', () => {
  const query = numbersQuery(Array.from({ length: 30 }, (_, i) => `frn${i}`))!;
  expect(query.match(/rec\.identifier/g)).toHaveLength(20);
});

test('what a registry has is read: number, forms, sources, members; what is local there stays there', () => {
  const name = registryName(REEDMAN)!;
  expect(name).toMatchObject({
    number: '(FRN)frn000007',
    text: 'Reedman, Amos, 1880-1950',
    seeFroms: ['Reedman, A.'],
    sources: ['Tools, 1912: title page'],
    forms: [
      { form: 'Reedman, Amos, 1880-1950', members: 41 },
      { form: 'Reedman, A.', members: 3 },
    ],
    isGone: false,
    replacedBy: '',
  });
  expect(name.marc.fields.map((f) => f.tag)).not.toContain('990');
});
test.each<[string, MarcRecord]>([
  ['a bibliographic record', { ...REEDMAN, leader: '00000nam a2200000 i 4500' }],
  ['a record without a heading', record()],
  ['one without a number', { ...REEDMAN, fields: REEDMAN.fields.slice(1) }],
])('%s is no name', (_, marc) => expect(registryName(marc)).toBeNull());
test('one that is no more says what takes its place (leader 05, 682)', () => {
  const gone = { ...REEDMAN, leader: '00000dz  a2200000n  4500' };
  const told = { ...gone, fields: [...gone.fields, field('682', '  ', 'i', 'Use', 'a', 'Reedman, Amos J.')] };
  expect(registryName(told)).toMatchObject({ isGone: true, replacedBy: 'Reedman, Amos J.' });
});

test('the number that a heading has in a registry', () => {
  const ours = {
    leader: '',
    fields: [field('035', '  ', 'a', '(FRN)frn000007'), field('010', '  ', 'a', 'n 1')],
  };
  expect([numberIn(ours, 'FRN'), numberIn(ours, 'FR'), numberIn(ours, '')]).toEqual([
    'frn000007',
    null,
    null,
  ]);
  expect(numberIn(REEDMAN, 'FRN')).toBe('frn000007');
  const merged = { leader: '', fields: [field('035', '  ', 'z', '(FRN)frn000001', 'a', '(FRN)frn000009')] };
  expect(numberIn(merged, 'FRN')).toBe('frn000009');
  expect(numberIn({ leader: '', fields: [field('035', '  ', 'z', '(FRN)frn000001')] }, 'FRN')).toBeNull();
});
const heading = (...fields: MarcRecord['fields']): Heading => ({
  ...{ kind: 'personal', mergedInto: null },
  marc: record(...fields),
});
test.each<[string, Heading, MarcRecord | null, 'form' | 'gone' | null]>([
  ['the same form', heading(field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950')), REEDMAN, null],
  ['another form', heading(field('100', '1 ', 'a', 'Reedman, Amos')), REEDMAN, 'form'],
  ['no record any more', heading(field('100', '1 ', 'a', 'Reedman, Amos')), null, 'gone'],
  [
    'a deleted one',
    heading(field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950')),
    { ...REEDMAN, leader: '00000sz  a2200000n  4500' },
    'gone',
  ],
])('the registry says of %s what there is to say', (_, ours, theirs, says) =>
  expect(registryNews(ours, theirs && registryName(theirs))).toBe(says),
);

test('the form of the registry is suggested before all others', () => {
  const form = (id: number, text: string, isEstablished: boolean, isOfRegistry = false) => ({
    ...{ id, text, isEstablished, isOfRegistry },
    records: 1,
  });
  const all = [form(1, 'Reedman, Amos Josiah', true), form(2, 'Reedman, Amos', false, true)];
  expect(suggestedForm(all)).toEqual({ id: 2, why: 'registry' });
  expect(suggestedForm(all.map((f) => ({ ...f, isOfRegistry: true })))).toEqual({
    id: 1,
    why: 'established',
  });
});
