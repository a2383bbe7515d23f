import fc from 'fast-check';
import { decodedOnce, editDistance, fold, foldedWords, nearest } from '.';

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
test('no words in nothing', () => expect(foldedWords(' – ')).toEqual([]));

test.each([
  ['willow', 'willow', 0],
  ['willow', 'wilow', 1],
  ['willow', 'wlilow', 1],
  ['', 'ab', 2],
  ['kitten', 'sitting', 3],
])('%s to %s takes %i', (a, b, n) => expect(editDistance(a, b)).toBe(n));
test('distance is the same both ways, and a limit only cuts it off', () => {
  fc.assert(
    fc.property(
      fc.string({ maxLength: 8 }),
      fc.string({ maxLength: 8 }),
      fc.integer({ min: 0, max: 4 }),
      (a, b, limit) => {
        const n = editDistance(a, b);
        expect(editDistance(b, a)).toBe(n);
        expect(editDistance(a, b, limit)).toBe(Math.min(n, limit + 1));
      },
    ),
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
