import fc from 'fast-check';
import { isInRange, keyRange, prefixMark, shelfKey, shelfPlaceOf, typedPrefix, type CallNumber } from '.';
import { inShelfOrder, isPlan, planOfText } from '../find';

const ORDER = ['REF', 'J', 'F', 'Biog.'];
const of = (prefix: string, cls: string, item = 'WIL'): CallNumber => ({
  ...{ scheme: 'dewey', prefix, item, suffix: '' },
  class: cls,
});
const sorted = (all: readonly CallNumber[], order: readonly string[] = ORDER) =>
  all
    .toSorted((a, b) => (shelfKey(a, order) < shelfKey(b, order) ? -1 : 1))
    .map((n) => `${n.prefix} ${n.class} ${n.item}`.trim());

test('prefixes stand in the order of the library: none before them, others behind them by the alphabet', () => {
  const shelf = [
    ...[of('A', '100'), of('F', '', 'WIL'), of('j', '746.4'), of('', '999'), of('REF', '030')],
    ...[of('F', '', 'ADA'), of('OVERSIZE', '700'), of('biog', '', 'REE'), of('', '001'), of('J', '030')],
  ];
  expect(sorted(shelf)).toEqual([
    ...['001 WIL', '999 WIL', 'REF 030 WIL', 'J 030 WIL', 'j 746.4 WIL', 'F  ADA', 'F  WIL'],
    ...['biog  REE', 'A 100 WIL', 'OVERSIZE 700 WIL'],
  ]);
  expect(sorted(shelf, [])[2]).toBe('A 100 WIL');
});

test('what cannot be read stays behind all others, whatever its prefix', () =>
  expect(sorted([of('REF', 'not a number'), of('Z', '999')])).toEqual(['Z 999 WIL', 'REF not a number WIL']));

test('a class of letters is no prefix', () => {
  const lc = (cls: string): CallNumber => ({ scheme: 'lc', prefix: '', class: cls, item: '', suffix: '' });
  for (const cls of ['F 127', 'J 80', 'QA 76.9']) {
    expect(shelfKey(lc(cls), ORDER)).toBe(shelfKey(lc(cls)));
    expect(keyRange(cls, cls, 'lc', ORDER)).toEqual(keyRange(cls, cls, 'lc'));
  }
});

const numbers = fc
  .record({
    prefix: fc.constantFrom('', 'REF', 'J', 'F', 'Biog.', 'A', 'OVERSIZE', 'ref'),
    cls: fc.constantFrom('030', '746.4', '746.41', '', '999'),
    item: fc.constantFrom('ADA', 'WIL', 'WIL 2'),
  })
  .filter(({ prefix, cls }) => prefix !== '' || cls !== '')
  .map(({ prefix, cls, item }) => of(prefix, cls, item));
const text = (n: CallNumber) => [n.prefix, n.class, n.item].filter(Boolean).join(' ');

test('a call number that is typed stands where the holding of it stands', () =>
  fc.assert(
    fc.property(numbers, (n) => {
      expect(typedPrefix(text(n))).toBe(n.prefix);
      expect(shelfPlaceOf(text(n), ORDER)).toBe(shelfKey(n, ORDER));
      expect(isInRange(shelfKey(n, ORDER), keyRange(text(n), text(n), 'dewey', n.class ? ORDER : []))).toBe(
        n.class !== '',
      );
    }),
  ));

test('among those of one prefix, and among those without a place of their own, the order is as ever', () =>
  fc.assert(
    fc.property(numbers, numbers, (a, b) => {
      if (prefixMark(a.prefix, ORDER) !== prefixMark(b.prefix, ORDER)) return;
      expect(shelfKey(a, ORDER) < shelfKey(b, ORDER)).toBe(shelfKey(a) < shelfKey(b));
    }),
  ));

test('a query for a range of call numbers asks for places in the order of the library', () => {
  const leaf = (q: string) => {
    const plan = planOfText(q);
    if (!isPlan(plan)) throw new Error(plan.problem);
    return inShelfOrder(plan, ORDER);
  };
  expect(leaf('callnumber within "J 030 .. F"')).toMatchObject({
    value: shelfPlaceOf('J 030', ORDER),
    to: expect.stringContaining(shelfPlaceOf('F', ORDER)) as string,
  });
  expect(leaf('title = eels or callnumber >= "REF 030"')).toMatchObject({
    of: [{ type: 'words' }, { value: shelfPlaceOf('REF 030', ORDER) }],
  });
  expect(leaf('callnumber >= "746.4"')).toMatchObject({ value: shelfPlaceOf('746.4') });
});
