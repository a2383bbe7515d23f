import fc from 'fast-check';
import {
  asciiClasses,
  asciiWords,
  decodedOnce,
  editDistance,
  fold,
  foldedWords,
  memory,
  nearest,
  withoutMarks,
} from '.';

test.each([
  ['L’Été à la Mer', 'lete a la mer'],
  ['Łódź', 'lodz'],
  ['Ḳeliʻah', 'keliah'],
  ['  A--B  ', 'a b'],
  ['Straße', 'strasse'],
  ['Плетение', 'плетение'],
])('%s folds to %s', (text, folded) => {
  expect(fold(text)).toBe(folded);
});
test('folding twice is folding once', () =>
  fc.assert(fc.property(fc.string(), (t) => expect(fold(fold(t))).toBe(fold(t)))));
const written = fc.oneof(
  fc.string({ unit: fc.constantFrom(..."ab Z9'’.,-[]#&+\t\n", 'é', 'ß', 'İ', 'K', 'ﬁ', '中') }),
  fc.string({ unit: 'binary-ascii' }),
  fc.string({ unit: 'binary' }),
);
test('letters without marks are folded as all others are', () =>
  fc.assert(
    fc.property(written, (text) =>
      expect(fold(text)).toBe(
        withoutMarks(text)
          .toLowerCase()
          .replace(/['’ʹʻʼ]/g, '')
          .replace(/[^\p{L}\p{N}]+/gu, ' ')
          .trim(),
      ),
    ),
    { numRuns: 1000 },
  ));
test('words of characters below U+0080: some stay, some are nothing, all others are a blank', () => {
  const classes = asciiClasses('abc', "'");
  expect(asciiWords(" 'a'b, -c' d'", classes)).toBe('ab c');
  expect(asciiWords('', classes)).toBe('');
  expect(asciiWords('ab é', classes)).toBeNull();
});
test('no words in nothing', () => expect(foldedWords(' – ')).toEqual([]));

test.each([
  ['willow', 'willow', 0],
  ['willow', 'wilow', 1],
  ['willow', 'wlilow', 1],
  ['', 'ab', 2],
  ['kitten', 'sitting', 3],
])('%s to %s takes %i', (a, b, n) => expect(editDistance(a, b)).toBe(n));
/** The whole table, as the definition of optimal string alignment has it. */
function wholeTable(a: string, b: string): number {
  const d = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => i + j),
  );
  for (let i = 1; i <= a.length; i++)
    for (let j = 1; j <= b.length; j++) {
      const cost = a[i - 1] === b[j - 1] ? 0 : 1;
      d[i]![j] = Math.min(d[i - 1]![j]! + 1, d[i]![j - 1]! + 1, d[i - 1]![j - 1]! + cost);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        d[i]![j] = Math.min(d[i]![j]!, d[i - 2]![j - 2]! + 1);
    }
  return d[a.length]![b.length]!;
}
const fewLetters = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 12 });
test('distance is that of the whole table, and a limit only cuts it off', () => {
  fc.assert(
    fc.property(fewLetters, fewLetters, fc.integer({ min: 0, max: 6 }), (a, b, limit) => {
      const n = wholeTable(a, b);
      expect(editDistance(a, b)).toBe(n);
      expect(editDistance(a, b, limit)).toBe(Math.min(n, limit + 1));
    }),
    { numRuns: 2000 },
  );
});
test('the nearest codes come first, capitals a small difference', () =>
  expect(nearest('open', ['STORE', 'OPEN', 'OPAN'], 2)).toEqual(['OPEN', 'OPAN']));

test('text encoded twice is read once more, and only that', () => {
  const twice = (t: string) =>
    Array.from(
      new TextEncoder().encode(t),
      (b) =>
        new Map([
          [0x89, '‰'],
          [0x80, '€'],
          [0x99, '™'],
        ]).get(b) ?? String.fromCharCode(b),
    ).join('');
  expect(decodedOnce(twice('Étude d’été'))).toBe('Étude d’été');
  for (const fine of ['café', 'Ångström', 'plain', 'naïve', 'Â', 'Ô café'])
    expect(decodedOnce(fine)).toBeNull();
});

test('a memory works each thing out once for each function, up to its size', () => {
  let worked = 0;
  const double = (n: number) => (worked++, 2 * n);
  const nothing = () => (worked++, undefined);
  const known = memory(2);
  expect([1, 2, 1, 2, 3, 3].map((n) => known.of(double, n))).toEqual([2, 4, 2, 4, 6, 6]);
  // The third does not fit any more, and is worked out each time.
  expect(worked).toBe(4);
  expect([1, 1, 1].map((n) => known.of(nothing, n))).toEqual([undefined, undefined, undefined]);
  expect(worked).toBe(5);
  expect(memory().of(double, 1)).toBe(2);
  expect(worked).toBe(6);
});
