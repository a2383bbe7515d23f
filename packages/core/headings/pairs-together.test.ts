import { assert, array, integer, property, tuple } from 'fast-check';
import { pairsTogether } from './pairs-together';

const pair = (a: number, b: number) => ({ a, b, score: 1, why: '' });
const ends = (bunches: readonly (readonly { a: number; b: number }[])[]) =>
  bunches.map((pairs) => pairs.map(({ a, b }) => [a, b]));

test('a chain is one bunch, however late its links come', () => {
  const pairs = [pair(1, 2), pair(5, 6), pair(3, 4), pair(2, 3), pair(7, 9)];
  expect(ends(pairsTogether(pairs))).toEqual([
    [
      [1, 2],
      [3, 4],
      [2, 3],
    ],
    [[5, 6]],
    [[7, 9]],
  ]);
  expect(pairsTogether([])).toEqual([]);
});

test('every pair is in one bunch, no heading in two, and each bunch hangs together', () => {
  const some = array(tuple(integer({ min: 1, max: 30 }), integer({ min: 1, max: 30 })), { maxLength: 40 });
  assert(
    property(some, (given) => {
      const pairs = given.map(([a, b]) => pair(a, b));
      const bunches = pairsTogether(pairs);
      expect(new Set(bunches.flat())).toEqual(new Set(pairs));
      const headings = bunches.map((b) => new Set(b.flatMap((p) => [p.a, p.b])));
      expect(headings.reduce((n, h) => n + h.size, 0)).toBe(new Set(pairs.flatMap((p) => [p.a, p.b])).size);
      for (const bunch of bunches) {
        const reached = new Set([bunch[0]!.a]);
        for (let before = 0; before < reached.size;) {
          before = reached.size;
          for (const { a, b } of bunch) if (reached.has(a) || reached.has(b)) reached.add(a).add(b);
        }
        expect(bunch.every((p) => reached.has(p.a))).toBe(true);
      }
    }),
  );
});
