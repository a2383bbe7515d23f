import fc from 'fast-check';
import { rowsText } from './rows-text';

const number = fc.oneof(
  fc.nat(),
  fc.maxSafeNat(),
  fc.constantFrom(0, 9, 10, 99_999_999, 1e8, 1e8 + 1, 1e15, 2 ** 52),
);

test('rows of numbers are written as JSON writes them', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(number, number), { maxLength: 20 }), (rows) => {
      const made = rowsText(rows.length);
      for (const [key, value] of rows) made.add(key, value);
      expect(made.text()).toBe(`{${rows.map(([key, value]) => `"${key}":${value}`).join()}}`);
    }),
  );
});
