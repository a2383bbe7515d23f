import fc from 'fast-check';
import { newToPile } from './index';

test('a thing lies on a pile once, and every scan of it is counted', () => {
  expect(newToPile(new Set([1]), [1, 2, 2])).toEqual({ fresh: [2], repeated: 2 });
  const numbers = fc.array(fc.integer({ min: 1, max: 9 }));
  fc.assert(
    fc.property(numbers, numbers, (held, wanted) => {
      const { fresh, repeated } = newToPile(new Set(held), wanted);
      expect(new Set([...held, ...fresh])).toEqual(new Set([...held, ...wanted]));
      expect(fresh.filter((f) => held.includes(f))).toEqual([]);
      expect(new Set(fresh).size).toBe(fresh.length);
      expect(fresh.length + repeated).toBe(wanted.length);
      // In the order in which they came.
      expect(fresh).toEqual([...fresh].sort((a, b) => wanted.indexOf(a) - wanted.indexOf(b)));
    }),
  );
});
