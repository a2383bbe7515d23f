import fc from 'fast-check';
import {
  cleanCode,
  CodeSense,
  filedAs,
  ShelfCount,
  SlipIndex,
  type CountedCopy,
  type CountResult,
  type ShelfOrder,
} from '.';
import { schemeNamed, shelfKeyOf } from '../callnumbers';
import { generatedShelf, type GeneratedShelf } from '../testing';

const codes = new CodeSense([{ length: 14, check: 'mod10', prefix: '31204' }]);
const rules = {
  ...{ seenSince: '2026-03-09', skipRunMin: 5, codes },
  isExpected: (status: string) => status === 'available',
};

function countOf({ copies, sections }: GeneratedShelf): ShelfCount {
  const homes = new Map(sections.map((s, i) => [s.location, i]));
  const orders: Record<string, ShelfOrder> = {
    call: 'call',
    'call+author': 'call+author',
    'call+author+title': 'call+author+title',
  };
  return new ShelfCount(
    copies.map((c): CountedCopy => ({
      ...{ barcode: c.barcode, status: c.status, lastSeen: c.lastSeen },
      home: c.branch === 'HILL' ? (homes.get(c.location) ?? -1) : -1,
      outside: c.branch === 'HILL' ? 'location' : 'branch',
      call: shelfKeyOf(c.callNumber, schemeNamed(c.scheme) ?? 'own'),
      ...{ author: filedAs(c.author), title: filedAs(c.title) },
    })),
    sections.map((s) => orders[s.order]!),
    rules,
  );
}

/** Walks all sections; after each scan that is asked for, `look` is called. */
function walk(
  count: ShelfCount,
  { lines, sections }: GeneratedShelf,
  look?: (scans: number) => void,
): CountResult {
  const number = count.addWalk();
  let scans = 0;
  sections.forEach((s, i) => {
    const section = count.addSection(number, [i]);
    for (let line = s.first_line; line <= s.last_line; line++) {
      count.add(section, cleanCode(lines[line - 1]!), line);
      look?.(++scans);
    }
  });
  return count.result();
}

const plain = (r: CountResult, copies: number) => ({
  ...{ missing: r.missing, skipped: r.skipped, found: r.found, elsewhere: r.elsewhere },
  ...{ repeated: r.repeated, order: r.order, strays: r.strays },
  outcomes: Array.from({ length: copies }, (_, i) => r.outcomeOf(i)),
});

test('each copy of a home has one outcome, each scan is readable, misread or unknown', () =>
  fc.assert(
    fc.property(fc.nat(1000), (seed) => {
      const shelf = generatedShelf(300, seed);
      const count = countOf(shelf);
      const r = walk(count, shelf);
      const listed = [...r.missing, ...r.skipped.flatMap((s) => s.copies)];
      expect(new Set(listed).size).toBe(listed.length);
      shelf.copies.forEach((_, i) => {
        const outcome = r.outcomeOf(i);
        if (count.copies[i]!.home < 0) expect(outcome).toBeNull();
        else expect(listed.includes(i)).toBe(outcome === 'missing' || outcome === 'skipped');
      });
      const scans = count.walks.flat();
      expect(r.strays.length).toBe(scans.filter((c) => c < 0).length);
      for (const { copy } of r.strays)
        if (copy !== null && count.copies[copy]!.home >= 0) expect(r.outcomeOf(copy)).toBe('stood');
    }),
    { numRuns: 12 },
  ));

test('looking at the result in between changes nothing of it', () => {
  const shelf = generatedShelf(400, 8);
  const [once, often] = [countOf(shelf), countOf(shelf)];
  const whole = walk(once, shelf);
  const looked = walk(often, shelf, (scans) => void (scans % 7 === 0 && often.result()));
  expect(plain(looked, shelf.copies.length)).toEqual(plain(whole, shelf.copies.length));
});

test('it does not matter whether two walks come one after the other or scan by scan', () => {
  const shelf = generatedShelf(300, 5);
  const results = [false, true].map((isMixed) => {
    const count = countOf(shelf);
    const sections = shelf.sections.map((_, i) => count.addSection(count.addWalk(), [i]));
    const scans = shelf.sections.map((s, i) =>
      shelf.lines
        .slice(s.first_line - 1, s.last_line)
        .map((line, k) => [sections[i]!, cleanCode(line), s.first_line + k] as const),
    );
    const [a, b] = [scans[0]!, scans[1]!];
    const order = isMixed
      ? Array.from({ length: Math.max(a.length, b.length) }, (_, k) => [a[k], b[k]])
      : [a, b];
    for (const scan of order.flat()) if (scan) count.add(...scan);
    const { outcomes, missing, skipped, order: moved, strays } = plain(count.result(), shelf.copies.length);
    return {
      outcomes,
      missing,
      skipped,
      moved: moved.toSorted((x, y) => x.home - y.home),
      strays: strays.toSorted((x, y) => x.line - y.line),
    };
  });
  expect(results[1]).toEqual(results[0]);
  expect(results[0]!.moved.flatMap((o) => o.moves).length).toBeGreaterThan(0);
});

test.each([
  ['*31204000500019*', '31204000500019'],
  [' a31204 000500019B\r', '31204000500019'],
  ['a31204000500019', 'A31204000500019'],
  ['978-0-306-40615-7', '978-0-306-40615-7'],
  ['*A1B*', '1'],
  ['\t \r', ''],
])('“%s” is clean as “%s”', (raw, clean) => expect(cleanCode(raw)).toBe(clean));

describe('slips', () => {
  const barcodes = ['31204000500019', '31204000500027', '31204000591000', '30000000000004'];
  const near = (code: string) => new SlipIndex(barcodes, codes).near(code).map((i) => barcodes[i]!);
  test.each<[string, string, string[]]>([
    ['a digit dropped', '3120400050019', ['31204000500019']],
    ['the check digit lost', '3120400050001', ['31204000500019']],
    ['one digit another', '31204000500099', ['31204000500019']],
    ['two neighbours swapped', '31204000500091', ['31204000500019']],
    ['two digits wrong', '31204000511019', []],
    ['nought and nine swapped pass the check', '31204000519000', ['31204000591000']],
    ['too short', '312040005000', []],
    ['not digits alone', '3120400050001X', ['31204000500019']],
  ])('%s', (_, code, found) => expect(near(code)).toEqual(found));

  test('the same by arithmetic and by trying every text', () =>
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^3120\d{4}$/), { minLength: 1, maxLength: 30 }),
        fc.stringMatching(/^3120\d{3,4}$/),
        (all, code) => {
          const sense = new CodeSense([{ length: 8, check: 'mod10', prefix: '3120' }]);
          const some = [...new Set(all)].filter((b) => b !== code);
          const slips = (b: string): boolean => {
            const swapped = [...code].some(
              (_, i) =>
                i + 1 < code.length && code.slice(0, i) + code[i + 1]! + code[i]! + code.slice(i + 2) === b,
            );
            const put = code.length === 7 && [...b].some((_, i) => b.slice(0, i) + b.slice(i + 1) === code);
            const other =
              code.length === 8 &&
              !sense.isSound(code) &&
              [...b].filter((d, i) => d !== code[i]).length === 1;
            return (code.length === 8 && swapped) || put || other;
          };
          expect(new SlipIndex(some, sense).near(code).map((i) => some[i]!)).toEqual(
            some.filter(slips).sort(),
          );
        },
      ),
      { numRuns: 300 },
    ));
});
