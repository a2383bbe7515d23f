import fc from 'fast-check';
import { field } from '../../marc';
import { textNumber } from '../../text';
import { bucketsOf, candidates, compareForms, formIn, type Form } from '.';

const pairsOf = (forms: readonly Form[]) =>
  new Set(
    [...candidates(forms.map((f) => bucketsOf(f)))].flatMap(([at, earlier]) =>
      earlier.map((e) => `${e} ${at}`),
    ),
  );

/** A text with one letter left out, doubled or replaced, or as it is. */
const written = (text: string, at: number, how: number): string => {
  const i = at % text.length;
  if (!/[a-z]/.test(text[i]!)) return text;
  return how === 0 ? text : text.slice(0, i) + ['', text[i]!.repeat(2), 'o'][how - 1]! + text.slice(i + 1);
};
const SURNAMES = ['Reedman', 'Redmayne', 'Furzedown', 'De la Mare', 'O’Hazel', 'Birch-Withy', 'Li'];
const GIVEN = ['Amos', 'A.', 'Amos B.', 'Ivy', 'I. M.', 'William', 'Wm.'];
const TOPICS = [
  'Basket makers',
  'Basketmakers',
  'Willow',
  'Willows',
  'Rural life 1990',
  'Rural life 1990s',
  'Hand weaving',
];
const BODIES = [
  'Wickmere Institute',
  'Wickmere Institute, Inc.',
  'Society of Basket Makers',
  'Osmere Basket Society',
  'W.I.',
  'Osmere Museum. // Society of Basket Makers',
];
const twisted = (texts: readonly string[]) =>
  fc
    .tuple(fc.constantFrom(...texts), fc.nat(30), fc.constantFrom(0, 0, 1, 2, 3))
    .map(([text, at, how]) => written(text, at, how));
const forms = fc
  .oneof(
    fc
      .tuple(twisted(SURNAMES), fc.constantFrom(...GIVEN))
      .map(([s, g]) => field('100', '1 ', 'a', `${s}, ${g}`)),
    fc.constantFrom(...GIVEN).map((g) => field('100', '0 ', 'a', g)),
    twisted(TOPICS).map((t) => field('650', ' 0', 'a', t)),
    twisted(BODIES).map((b) => {
      const [body = '', unit] = b.split(' // ');
      return field('110', '2 ', 'a', body, ...(unit === undefined ? [] : ['b', unit]));
    }),
  )
  .map((f) => formIn(f)!);

test('whatever may be one is compared', () => {
  let alike = 0;
  fc.assert(
    fc.property(fc.array(forms, { minLength: 10, maxLength: 40 }), (some) => {
      const compared = pairsOf(some);
      some.forEach((b, at) =>
        some.slice(0, at).forEach((a, e) => {
          if (compareForms(a, b).verdict === 'different') return;
          alike++;
          if (!compared.has(`${e} ${at}`)) throw new Error(`${a.text} | ${b.text}`);
        }),
      );
    }),
    { numRuns: 300 },
  );
  expect(alike).toBeGreaterThan(1000);
});

test('each pair is given once, and not every two are one', () => {
  const topics = Array.from({ length: 400 }, (_, i) => formIn(field('650', ' 0', 'a', `Rural life ${i}`))!);
  expect(pairsOf(topics).size).toBe(0);
  const same = Array.from({ length: 30 }, () => formIn(field('650', ' 0', 'a', 'Rural life'))!);
  expect([...candidates(same.map((f) => bucketsOf(f)))].flatMap(([, earlier]) => earlier)).toHaveLength(
    (30 * 29) / 2,
  );
});

test('numbers of texts: the same every time, in the order of the first letters, safe as numbers, hardly ever twice', () => {
  expect(textNumber('reed')).toBe(textNumber('reed'));
  expect(textNumber('reed basket')).toBeLessThan(textNumber('willow'));
  const texts = Array.from({ length: 50_000 }, (_, i) => `osier ${i} ${(i * 7919) % 104_729}`);
  const numbers = new Set(texts.map((text) => textNumber(text)));
  // 50,000 of 2^32: one meeting in three tries.
  expect(numbers.size).toBeGreaterThan(texts.length - 5);
  fc.assert(
    fc.property(
      fc.string({ unit: 'binary' }),
      (text) => Number.isSafeInteger(textNumber(text)) && textNumber(text) >= 0,
    ),
  );
});
