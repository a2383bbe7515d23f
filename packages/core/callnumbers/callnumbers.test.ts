import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { byKey, cutDewey, deweyKey, lcKey, shelfKey, shelfKeyOf } from '.';

const inOrder = (keys: (string | null)[]) => keys.every((k, i) => i === 0 || byKey(keys[i - 1]!, k!) < 0);

describe('Dewey', () => {
  test.each<[string, number, string | null]>([
    ['746.412', 2, '746.41'],
    ['746.41/2', 2, '746.41'],
    ['746.4/12', 2, '746.4'],
    ['636.7/0094', 2, '636.7'],
    ['746', 2, '746'],
    ['746.41', 2, '746.41'],
    ['746.4′12', 3, '746.412'],
    ['746.400', 2, '746.4'],
    ['746.4120942', 0, '746'],
    ['J 746.412', 1, '746.4'],
    ['no number', 2, null],
    ['823/.92', 2, '823.92'],
    ['823/.9124', 2, '823'],
  ])('%s cut to %i decimals is %s (common practice, no source)', (given, decimals, cut) => {
    expect(cutDewey(given, decimals)).toBe(cut);
  });

  test('cutting twice is cutting once, and never lengthens', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 999 }),
        fc.stringMatching(/^\d{1,8}$/),
        fc.integer({ min: 0, max: 6 }),
        (whole, decimals, keep) => {
          const text = `${String(whole).padStart(3, '0')}.${decimals}`;
          const cut = cutDewey(text, keep)!;
          expect(cutDewey(cut, keep)).toBe(cut);
          expect(text.startsWith(cut)).toBe(true);
        },
      ),
    );
  });

  test('shelf order: decimals, then cutter, nothing before something, volumes by number', () => {
    const shelf = [
      '635',
      '635.9 TAN',
      '746.1 ABC',
      '746.12 ABB',
      '746.12 ABB v.2',
      '746.12 ABB v.10',
      '746.12 ABC',
      '746.2 AAA',
      '800',
    ];
    expect(inOrder(shelf.map(deweyKey))).toBe(true);
  });
});

describe('Library of Congress', () => {
  test('shelf order (LC shelflisting: nothing before something, cutters as decimals)', () => {
    const shelf = [
      'Q 11 .P6',
      'QA 9 .C3',
      'QA 76.7 .B4',
      'QA 76.73 .J38 A5',
      'QA 76.73 .J38 A5 1998',
      'QA 76.73 .J4',
      'QA 100 .A1',
      'QA 100 .A12',
      'QA 100 .A2',
      'QB 1',
    ];
    expect(inOrder(shelf.map(lcKey))).toBe(true);
  });

  // Against Library::CallNumber::LC (Debian: liblibrary-callnumber-lc-perl).
  test('pairs stand in the order that Library::CallNumber::LC gives', () => {
    const part = fc
      .tuple(
        fc.constantFrom('A', 'B', 'BF', 'NK', 'QA', 'QE', 'TT', 'SF', 'Z', 'KFD'),
        fc.integer({ min: 1, max: 9999 }),
        fc.constantFrom('', '.5', '.73', '.735'),
        fc.array(
          fc.tuple(
            fc.constantFrom('A', 'B', 'C', 'W', 'Z'),
            fc.integer({ min: 1, max: 999 }).filter((n) => n % 10 !== 0),
          ),
          { minLength: 1, maxLength: 2 },
        ),
        fc.constantFrom('', ' 1987', ' 2004'),
      )
      .map(
        ([letters, n, decimal, cutters, year]) =>
          `${letters} ${n}${decimal} ${cutters.map(([l, d], i) => `${i ? ' ' : '.'}${l}${d}`).join('')}${year}`,
      );
    const numbers = [...new Set(fc.sample(part, { numRuns: 600, seed: 11 }))];
    const theirs = execFileSync(
      'perl',
      [
        '-e',
        'use Library::CallNumber::LC; while (<STDIN>) { chomp; print Library::CallNumber::LC->new($_)->normalize, "\\n" }',
      ],
      { input: numbers.join('\n'), encoding: 'utf8' },
    )
      .trim()
      .split('\n');
    expect(theirs).toHaveLength(numbers.length);
    const disagreeing: string[] = [];
    for (let i = 0; i < numbers.length; i++)
      for (let j = i + 1; j < numbers.length; j++)
        if (
          Math.sign(byKey(lcKey(numbers[i]!)!, lcKey(numbers[j]!)!)) !==
          Math.sign(byKey(theirs[i]!, theirs[j]!))
        )
          disagreeing.push(`${numbers[i]} | ${numbers[j]}`);
    expect(disagreeing).toEqual([]);
  });
});

test('any text gets a key, and a prefix parts its copies from the rest', () => {
  fc.assert(
    fc.property(fc.string(), fc.constantFrom('lc', 'dewey', 'nlm', 'own' as const), (text, scheme) =>
      expect(typeof shelfKeyOf(text, scheme as 'lc')).toBe('string'),
    ),
  );
  expect(shelfKey({ scheme: 'dewey', prefix: 'Q', class: '746', item: 'ABC', suffix: '' })).toBe('Q 746 ABC');
});

test('an LC number typed in small letters, run together or not, sorts as its capitals do', () => {
  for (const text of [
    'A19F99G15',
    'QA76.9.D3A52',
    'PZ7.B64AX 1990',
    'B2430 .D48 C56',
    'QA76.9 D3 1999',
    'KF26.L3V2',
  ])
    expect(lcKey(text.toLowerCase())).toBe(lcKey(text));
  const part = fc.stringMatching(/^[A-Z][0-9]{1,3}$/);
  fc.assert(
    fc.property(
      fc.stringMatching(/^[A-Z]{1,2}[0-9]{1,3}$/),
      fc.array(part, { maxLength: 3 }),
      fc.constantFrom('', '.', ' .', ' '),
      (letters, cutters, between) => {
        const text = letters + cutters.map((c) => between + c).join('');
        expect(lcKey(text.toLowerCase())).toBe(lcKey(text));
      },
    ),
  );
});
