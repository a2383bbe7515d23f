import fc from 'fast-check';
import { DEFAULT_HOUSE } from '../house';
import { field, type MarcRecord } from '../marc';
import { anyRecord } from '../testing/records';
import { BUILT_IN, runRecipe, stepSentence } from '.';

const house = BUILT_IN.find((r) => r.id === 'house-style')!;
const record = (language: string, ...fields: MarcRecord['fields'][number][]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '008', value: `120508s1990    enka   g      000 0 ${language} d` }, ...fields],
});

test('the built-in recipe does its three steps and says which touched', () => {
  const before = record(
    'eng',
    field('082', '04', 'a', '746.41/20942', '2', '23'),
    field('245', '14', 'a', 'The Willow bed :', 'b', 'The Story'),
    field('650', ' 0', 'a', 'Willows.'),
    field('650', ' 0', 'a', 'willows'),
    field('650', ' 7', 'a', 'Willows', '2', 'wick'),
  );
  const { record: after, touched } = runRecipe(before, house, DEFAULT_HOUSE);
  expect(touched).toEqual([0, 1, 2]);
  expect(after.fields.slice(1)).toEqual([
    field('082', '04', 'a', '746.41', '2', '23'),
    field('245', '14', 'a', 'The willow bed :', 'b', 'The Story'),
    field('650', ' 0', 'a', 'Willows.'),
    field('650', ' 7', 'a', 'Willows', '2', 'wick'),
  ]);
});
test.each([
  ['German nouns keep theirs', 'ger', 'Die Weide'],
  ['an acronym stays', 'eng', 'The BBC book'],
  ['no article, no change', 'eng', 'Willow Bed'],
])('%s', (_, language, title) => {
  const before = record(language, field('245', '10', 'a', title));
  expect(runRecipe(before, house, DEFAULT_HOUSE)).toEqual({ record: before, touched: [] });
});
test('running it twice is running it once', () => {
  fc.assert(
    fc.property(anyRecord, (r) => {
      const once = runRecipe(r, house, DEFAULT_HOUSE).record;
      expect(runRecipe(once, house, DEFAULT_HOUSE).touched).toEqual([]);
    }),
  );
});
test('every step reads itself as a sentence', () =>
  expect(house.steps.map((s) => stepSentence(s, DEFAULT_HOUSE))).toEqual([
    expect.stringContaining('245'),
    expect.stringContaining('subject'),
    expect.stringContaining('2 decimals'),
  ]));
