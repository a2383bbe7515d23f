import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import {
  byKey,
  callNumberDoubt,
  callNumberFault,
  explainCallNumber,
  isInRange,
  isUnreadKey,
  keyRange,
  lcKey,
  shelfKey,
  shelfKeyOf,
  type CallNumber,
  type Scheme,
} from '.';

/** Each list is in shelf order; no two numbers of it stand in one place. */
const SHELVES: readonly (readonly [scheme: Scheme, rule: string, shelf: readonly string[]])[] = [
  // Classification and Shelflisting Manual (LC), G 60, G 63: nothing before something; cutters and class extensions are decimals.
  [
    'lc',
    'class numbers as whole numbers, extensions as decimals',
    ['D 13 .A2', 'D 13.1 .A2', 'D 13.15', 'D 13.2', 'DA 1', 'E 185.5', 'E 185.61 .A5', 'E 1850'],
  ],
  [
    'lc',
    'a date stands before a cutter; one with a work letter behind all of the plain one',
    [
      'G3804 .N4 1990',
      'G3804 .N4 1990 .A3',
      'G3804 .N4 1990 .N35',
      'G3804 .N4 1990 .N4',
      'G3804 .N4 1990b',
      'G3804 .N4A1',
      'G3804 .N4A1 1990',
      'G3804 .N45',
    ],
  ],
  [
    'lc',
    'volumes by value',
    ['PR2753 .F5', 'PR2753 .F5 v.1', 'PR2753 .F5 v. 2', 'PR2753 .F5 vol. 10', 'PR2753 .F51'],
  ],
  [
    'lc',
    'numbers of issues behind a date',
    ['KF 26 .L3 1993 no. 2', 'KF 26 .L3 1993 no. 11', 'KF 26 .L3 1994'],
  ],
  [
    'lc',
    'a class number like a year is none',
    ['B 20', 'BX 1970', 'BX 1970 1985 .A3', 'BX 1970 .A1', 'BX 1971'],
  ],
  [
    'lc',
    'work letters stand behind the cutter they follow, before its further digits',
    ['PZ 7 .B64', 'PZ 7 .B64 1990', 'PZ 7 .B64Ax', 'PZ 7 .B64Ax 1990', 'PZ 7 .B641'],
  ],
  [
    'lc',
    'parts of volumes',
    ['QH1 .B5 v. 2 pt. 1', 'QH1 .B5 v. 2 pt. 2', 'QH1 .B5 v. 12', 'QH1 .B5 v. 12 c.2'],
  ],
  [
    'lc',
    'small letters, no blanks, decimals on a line of their own: the same number',
    ['hc241.25.i4', 'HC 241 .25 .I5', 'HC241.25.i6 1998', 'hc 241.3'],
  ],
  [
    'nlm',
    'Author numbers with work letters, geographic cutters of two letters (NLM Classification, from memory)',
    [
      'QS 4 A123',
      'QS 18.2',
      'QS 18.2 B434p 1991',
      'QZ 4',
      'W 1 JO345',
      'W 18',
      'W 18.2',
      'WA 11 AA1',
      'WA 11 DA8',
      'WB 100',
      'WB 100 B434',
      'WB 100 B434p 1990',
      'WB 100 B4341',
    ],
  ],
  // The rest: common practice, no source.
  [
    'dewey',
    'cutter digits are decimals, a work mark stands before further digits',
    ['001 ABC', '001.1', '001.42 W67', '001.42 W67 1998', '001.42 W67a', '001.42 W675', '001.42 W7'],
  ],
  ['dewey', 'decimals', ['641.5 DEL', '641.59 OLI', '641.594 DAV', '641.5941 GRI', '641.6']],
  [
    'dewey',
    'volumes and copies by value',
    ['808.8 M2 v.2', '808.8 M2 v.10', '808.8 M2 v.10 c.2', '808.8 M3'],
  ],
  [
    'dewey',
    'volume and copy count when all else is equal, a volume before a copy',
    [
      '512.94 HOL',
      '512.94 HOL c.2',
      '512.94 HOL v.1',
      '512.94 HOL v.1 c.2',
      '512.94 HOL v.2',
      '512.94 HOL v.10',
      '512.94 HOL 1998',
      '512.94 HOLM',
    ],
  ],
  [
    'own',
    'the same in a scheme of our own',
    ['FIC HOL', 'FIC HOL c.2', 'FIC HOL v.2', 'FIC HOL v.10', 'FIC HOL A'],
  ],
  ['dewey', 'nothing before something', ['973', '973 A', '973 AB', '973.04']],
  ['dewey', 'apostrophes do not count', ["299 O'A", '299 OBE', "299 O'C"]],
  [
    'dewey',
    'prefixes behind plain numbers',
    ['746 HOL', '999', 'J 746 HOL', 'R 423 OXF', 'REF 423 OXF', 'YA 823 ROW'],
  ],
  ['own', 'numbers by value', ['Box 2', 'Box 10', 'Box 10 a', 'Map 1', 'Map 20250101', 'Map 120250101']],
];

test.each(SHELVES)('%s: %s', (scheme, _rule, shelf) => {
  const wrong = shelf.flatMap((text, i) => {
    const before = shelf[i - 1];
    return before !== undefined && byKey(shelfKeyOf(before, scheme), shelfKeyOf(text, scheme)) >= 0
      ? [`${before} | ${text}`]
      : [];
  });
  expect(wrong).toEqual([]);
  expect(shelf.map((t) => shelfKeyOf(t, scheme)).filter(isUnreadKey)).toEqual([]);
});

test.each<[Scheme, readonly string[]]>([
  ['dewey', ['973 A', '973.0 A', '973.00 A c.1']],
  ['dewey', ['512.94 HOL v.2', '512.940 HOL v.02 c.1', '512.94 HOL V.2 C.1']],
  ['lc', ['QA76.73 .P98 L88', 'QA 76.73.P98 L88', 'QA76.730 .P980 L88 c.1']],
  ['own', ['FIC HOL', 'fic  hol', 'FIC HOL c.1']],
])('%s: %j stand in one place', (scheme, written) =>
  expect(new Set(written.map((t) => shelfKeyOf(t, scheme))).size).toBe(1),
);

test('what a scheme cannot read sorts by its text, volume and copy behind', () => {
  const shelf = ['XYZ 10', 'XYZ 9', 'XYZ 9 c.2', 'XYZ 9 v.2', 'XYZ 9A'];
  expect(
    shelf.toReversed().toSorted((a, b) => byKey(shelfKeyOf(a, 'dewey'), shelfKeyOf(b, 'dewey'))),
  ).toEqual(shelf);
});

// Against Library::CallNumber::LC (Debian: liblibrary-callnumber-lc-perl).
test('LC numbers in many ways of writing stand as that library sorts them', () => {
  const cutter = fc.tuple(
    fc.constantFrom('A', 'B', 'N', 'V', 'Z'),
    fc.stringMatching(/^[1-9][0-9]{0,2}[1-9]$/),
  );
  const written = fc
    .record({
      letters: fc.constantFrom('B', 'DA', 'PZ', 'qa', 'KFD', 'Z'),
      gap: fc.constantFrom('', ' '),
      whole: fc.integer({ min: 1, max: 9999 }),
      decimal: fc.constantFrom('', '.5', '.73', ' .25', '.123'),
      cutters: fc.array(cutter, { minLength: 1, maxLength: 3 }),
      between: fc.constantFrom('', ' ', ' .'),
      year: fc.constantFrom('', ' 1987', ' 2004'),
    })
    .map(
      ({ letters, gap, whole, decimal, cutters, between, year }) =>
        `${letters}${gap}${whole}${decimal} ${cutters.map(([l, d], i) => (i === 0 ? '.' : between) + l + d).join('')}${year}`,
    );
  const numbers = [...new Set(fc.sample(written, { numRuns: 500, seed: 7 }))];
  const script =
    'use Library::CallNumber::LC; while (<STDIN>) { chomp; my $n = Library::CallNumber::LC->new($_)->normalize; print defined $n ? $n : "", "\\n" }';
  const theirs = execFileSync('perl', ['-e', script], { input: numbers.join('\n'), encoding: 'utf8' }).split(
    '\n',
  );
  expect(theirs.slice(0, numbers.length).filter((t) => t === '')).toEqual([]);
  const wrong: string[] = [];
  for (let i = 0; i < numbers.length; i++)
    for (let j = i + 1; j < numbers.length; j++) {
      const [a, b] = [theirs[i]!, theirs[j]!];
      if (Math.sign(byKey(lcKey(numbers[i]!)!, lcKey(numbers[j]!)!)) !== Math.sign(byKey(a, b)))
        wrong.push(`${numbers[i]} | ${numbers[j]}`);
    }
  expect(wrong).toEqual([]);
});

const number = (parts: Partial<CallNumber>): CallNumber => ({
  ...{ scheme: 'dewey', prefix: '', class: '746.4', item: 'HOL', suffix: '' },
  ...parts,
});

test('what its scheme cannot read sorts behind everything, whatever stands before it, and is told', () => {
  const odd = number({ prefix: 'J', class: 'knitting' });
  expect(isUnreadKey(shelfKey(odd))).toBe(true);
  expect(byKey(shelfKey(number({ prefix: 'ZZ', class: '999.9' })), shelfKey(odd))).toBeLessThan(0);
  expect(callNumberDoubt(odd)).toContain('“knitting” is not a Dewey number');
  expect(callNumberDoubt(number({}))).toBeNull();
  expect(callNumberDoubt(number({ scheme: 'own', class: 'knitting' }))).toBeNull();
});

test('a prefix and an author mark may stand for a class, and nothing else may', () => {
  expect(callNumberFault(number({ prefix: 'F', class: '' }))).toBeNull();
  expect(callNumberFault(number({ prefix: 'F', class: '', item: '' }))).toContain('needs a class');
  expect(callNumberFault(number({ class: ' ' }))).toContain('needs a class');
  const fiction = ['HAR', 'HARD', 'HAS'].map((item) => shelfKey(number({ prefix: 'F', class: '', item })));
  expect(fiction.toSorted(byKey)).toEqual(fiction);
  expect(fiction.some(isUnreadKey)).toBe(false);
});

test.each<[Scheme, string, string, readonly string[], readonly string[]]>([
  [
    'dewey',
    '746.4',
    '746.9',
    ['746.4', '746.41 HOL', '746.9 ZZZ v.2', '746.98'],
    ['746.39', '747', 'J 746.5'],
  ],
  ['dewey', '', '099', ['001', '099.9 ABC'], ['100']],
  ['lc', 'QA 76', 'QA 76.9', ['QA 76 .B4', 'QA76.9.D3 2003'], ['QA 75', 'QA 760', 'QA 8']],
  ['lc', 'QA 7', 'QA 9', ['QA 9 .C3', 'QA 8'], ['QA 76', 'QA 10']],
  ['own', 'Box 2', 'Box 10', ['Box 3', 'Box 10 a'], ['Box 11', 'Map 1']],
])('%s: from “%s” to “%s”', (scheme, from, to, inside, outside) => {
  const range = keyRange(from, to, scheme);
  const isIn = (text: string) => isInRange(shelfKeyOf(text, scheme), range);
  expect(inside.filter((t) => !isIn(t))).toEqual([]);
  expect(outside.filter(isIn)).toEqual([]);
});

test.each<[Scheme, string, readonly (readonly [string, string])[] | null]>([
  [
    'dewey',
    'J 746.41 HOL v. 2 c.3',
    [
      ['prefix', 'J'],
      ['class', '746.41'],
      ['word', 'HOL'],
      ['volume', 'v. 2'],
      ['copy', 'c.3'],
    ],
  ],
  [
    'lc',
    'qa76.9.d3 a52 2003',
    [
      ['class', 'QA 76.9'],
      ['cutter', 'd3'],
      ['cutter', 'a52'],
      ['year', '2003'],
    ],
  ],
  ['dewey', 'Knitting', null],
])('%s: “%s” in its parts', (scheme, text, parts) =>
  expect(explainCallNumber(text, scheme)?.map((p) => [p.part, p.text]) ?? null).toEqual(parts),
);

test('a key is in its own range, and what follows it too', () =>
  fc.assert(
    fc.property(
      fc.stringMatching(/^\d{3}(\.\d{1,4})?( [A-Z]{3})?$/),
      fc.stringMatching(/^( v\.\d)?$/),
      (text, more) => {
        const range = keyRange(text, text, 'dewey');
        expect(isInRange(shelfKeyOf(text, 'dewey'), range)).toBe(true);
        expect(isInRange(shelfKeyOf(text + more, 'dewey'), range)).toBe(true);
      },
    ),
  ));
