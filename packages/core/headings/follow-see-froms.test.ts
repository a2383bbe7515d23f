import { field, type MarcRecord } from '../marc';
import { followable, headingFrom, headingIn, withKeptForms, type Heading } from '.';

const record = (...fields: MarcRecord['fields']): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields,
});
const headingWith = (kept: MarcRecord['fields'][number], ...from: MarcRecord['fields']): Heading => {
  const made = headingFrom(headingIn(kept as Parameters<typeof headingIn>[0])!);
  return { ...made, marc: { ...made.marc, fields: [...made.marc.fields, ...from] } };
};
const reedman = headingWith(
  field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950'),
  field('400', '1 ', 'a', 'Reedman, A.'),
);
const trains = headingWith(field('650', ' 0', 'a', 'Trains'), field('450', '  ', 'a', 'Railways'));

test('a see-from gives way to the kept form, and that is told', () => {
  const before = record(field('700', '1 ', 'a', 'Reedman, A.,', 'e', 'editor.'));
  const { record: after, notes } = withKeptForms(before, [
    { heading: reedman, from: new Set(['REEDMAN, A']) },
  ]);
  expect(after.fields).toEqual([
    field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950,', 'e', 'editor.'),
  ]);
  expect(notes).toEqual(['“Reedman, A.” became “Reedman, Amos, 1880-1950”']);
});

test('a subject is followed with its subdivisions', () => {
  const before = record(field('650', ' 0', 'a', 'Railways', 'z', 'England.'));
  expect(followable([before])).toEqual([
    { group: 'topic lcsh', key: 'RAILWAYS' },
    { group: 'topic lcsh', key: 'RAILWAYS$zENGLAND' },
  ]);
  const { record: after } = withKeptForms(before, [{ heading: trains, from: new Set(['RAILWAYS']) }]);
  expect(after.fields).toEqual([field('650', ' 0', 'a', 'Trains', 'z', 'England.')]);
});

test('a form that leads elsewhere too, or is of another vocabulary, stays', () => {
  const before = record(field('700', '1 ', 'a', 'Reedman, A.'), {
    ...field('650', ' 7', 'a', 'Railways', '2', 'fast'),
  });
  const found = [
    { heading: reedman, from: new Set<string>() },
    { heading: trains, from: new Set(['RAILWAYS']) },
  ];
  expect(withKeptForms(before, found)).toEqual({ record: before, notes: [] });
});
