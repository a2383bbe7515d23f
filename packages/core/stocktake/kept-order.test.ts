import fc from 'fast-check';
import { fewestMoves, KeptOrder } from '.';

const isInOrder = (ranks: readonly number[]) => ranks.every((r, i) => i === 0 || ranks[i - 1]! <= r);
const without = (ranks: readonly number[], moved: readonly number[]) =>
  ranks.filter((_, i) => !moved.includes(i));

test('the fewest are moved, and the rest stands in order: against every choice', () =>
  fc.assert(
    fc.property(fc.array(fc.nat(6), { maxLength: 9 }), (ranks) => {
      const moved = fewestMoves(ranks);
      expect(isInOrder(without(ranks, moved))).toBe(true);
      for (let mask = 0; mask < 1 << ranks.length; mask++) {
        const kept = ranks.filter((_, i) => mask & (1 << i));
        if (isInOrder(kept)) expect(kept.length).toBeLessThanOrEqual(ranks.length - moved.length);
      }
    }),
    { numRuns: 300 },
  ));

test('one at a time gives what all at once give', () =>
  fc.assert(
    fc.property(fc.array(fc.nat(40), { maxLength: 60 }), (ranks) => {
      const order = new KeptOrder(41);
      ranks.forEach((rank, i) => {
        order.append(rank);
        const stays = order.kept();
        const moved = [...stays].flatMap((s, k) => (s ? [] : [k]));
        expect(moved).toEqual(fewestMoves(ranks.slice(0, i + 1)));
      });
    }),
    { numRuns: 40 },
  ));

test.each<[string, readonly number[], readonly number[]]>([
  ['what stands in order stays', [1, 2, 2, 3], []],
  ['of two that changed places the later one is moved', [1, 2, 4, 3, 5], [3]],
  ['one that was put too far back', [1, 5, 2, 3, 4, 6], [1]],
  ['what stands together is moved together', [1, 7, 8, 2, 3, 4, 5, 6, 9], [1, 2]],
  ['of two blocks of one size the one that is not torn is moved', [1, 2, 7, 8, 3, 4, 9], [4, 5]],
])('%s', (_, ranks, moved) => expect(fewestMoves(ranks)).toEqual(moved));
