import { field, type MarcRecord } from '@osier/core/marc';
import { followed } from './use-selected';

const [a, b, c, d] = ['A', 'B', 'C', 'D'].map((t) => field('500', '  ', 'a', t)) as [
  ReturnType<typeof field>,
  ...ReturnType<typeof field>[],
];
const of = (...fields: readonly (typeof a | undefined)[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: fields.flatMap((f) => f ?? []),
});
const follow = (before: MarcRecord, places: readonly number[], after: MarcRecord) => [
  ...followed({ record: before, places: new Set(places) }, after),
];

test.each([
  ['one before it is gone', of(a, b, c), [1, 2], of(b, c), [0, 1]],
  ['one before it is new', of(a, b), [1], of(a, d, b), [2]],
  ['it is moved', of(a, b, c), [2], of(c, a, b), [0]],
  ['it is gone', of(a, b, c), [1], of(a, c), []],
  ['it is edited', of(a, b, c), [1], of(a, d, c), [1]],
  ['it is gone and another came at its place', of(a, b, c), [1], of(a, c, d), []],
  ['it is doubled', of(a, b, c), [1], of(a, b, b, c), [1]],
  ['both of two that are the same', of(a, b, b), [1, 2], of(b, b), [0, 1]],
])('%s', (_, before, places, after, wanted) => expect(follow(before, places, after)).toEqual(wanted));
test('a field of another tag in its place is not it', () =>
  expect(follow(of(a, b), [1], of(a, { ...d!, tag: '650' }))).toEqual([]));
