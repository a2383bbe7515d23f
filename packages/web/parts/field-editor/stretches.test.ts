import type { Finding } from '@osier/core/checks';
import fc from 'fast-check';
import { stretches } from './stretches';

const finding = (start?: number, end?: number, rule = 'spaces'): Finding => ({
  rule,
  severity: 'advice',
  where: {
    field: 0,
    tag: '245',
    occurrence: 0,
    ...(start !== undefined && { start }),
    ...(end !== undefined && { end }),
  },
  message: 'Something.',
});
const shown = (text: string, ...found: Finding[]) =>
  stretches(text, found).map(({ part, finding: f }) => (f ? `[${part}]` : part));

test.each<[string, Finding[], string[]]>([
  ['nothing found', [], ['Eels and traps']],
  ['a range', [finding(5, 8)], ['Eels ', '[and]', ' traps']],
  ['two ranges, told in another order', [finding(9, 14), finding(0, 4)], ['[Eels]', ' and ', '[traps]']],
  ['no range: the whole', [finding()], ['[Eels and traps]']],
  ['two that overlap: the first', [finding(0, 8), finding(5, 14)], ['[Eels and]', ' traps']],
  ['beyond the text: only in the margin', [finding(5, 99)], ['Eels and traps']],
  ['an empty range', [finding(4, 4)], ['Eels and traps']],
])('%s', (_, found, parts) => {
  expect(shown('Eels and traps', ...found)).toEqual(parts);
});

test('whatever is found, the text is all there and in order', () => {
  const range = fc.tuple(fc.integer({ min: -2, max: 30 }), fc.integer({ min: -2, max: 30 }));
  fc.assert(
    fc.property(fc.string({ maxLength: 25 }), fc.array(range, { maxLength: 6 }), (text, ranges) => {
      const parts = stretches(
        text,
        ranges.map(([a, b]) => finding(a, b)),
      );
      expect(parts.map((p) => p.part).join('')).toBe(text);
    }),
  );
});
