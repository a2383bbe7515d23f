import fc from 'fast-check';
import {
  hasRightCheckDigit,
  isRollFor,
  isSpoiled,
  nextSerial,
  rollCheck,
  rollCounts,
  rollMeantFor,
  rollNumber,
  rollProblems,
  serialIn,
  spoiledAsKept,
  type CheckRule,
  type LabelRoll,
} from '.';

const roll: LabelRoll = {
  name: 'Ours',
  prefix: '31204',
  from: 100,
  to: 199,
  length: 14,
  check: true,
  supplier: '',
};

test('numbers of a roll have its length and check digit, and lead back to their serial', () =>
  fc.assert(
    fc.property(fc.integer({ min: roll.from, max: roll.to }), fc.boolean(), (serial, check) => {
      const r = { ...roll, check };
      const barcode = rollNumber(r, serial);
      expect(barcode).toHaveLength(14);
      if (check) expect(hasRightCheckDigit(barcode)).toBe(true);
      expect(serialIn(r, barcode)).toBe(serial);
    }),
  ));
test.each([
  ['outside the run', rollNumber({ ...roll, to: 999 }, 200)],
  ['another prefix', '2120400000001'],
  ['a wrong check digit', rollNumber(roll, 150).replace(/.$/, (d) => String((Number(d) + 1) % 10))],
  ['letters', '31204ABCDEFGHI'],
])('%s is not of the roll', (_, barcode) => expect(serialIn(roll, barcode)).toBeNull());
test('used and left', () => {
  const counts = (used: number, last: number | null, more: Partial<LabelRoll> = {}) => {
    const { isLow, ...n } = rollCounts({ ...roll, ...more }, { used, last, usedSpoiled: 0 });
    return [n, isLow];
  };
  const none = { used: 0, spoiled: 0, passed: 0 };
  expect(counts(0, null)).toEqual([{ ...none, all: 100, left: 100 }, false]);
  expect(counts(48, 149)).toEqual([{ ...none, all: 100, used: 48, left: 50, passed: 2 }, false]);
  expect(counts(100, 199)).toEqual([{ ...none, all: 100, used: 100, left: 0 }, false]);
  const spoiled = ['140', '148-152', '150-155'];
  expect(counts(40, 149, { spoiled, warnBelow: 44 })).toEqual([
    ...[{ all: 100, used: 40, spoiled: 9, left: 44, passed: 7 }, false],
  ]);
  expect(counts(40, 149, { spoiled, warnBelow: 45 })[1]).toBe(true);
  expect(counts(40, 149, { spoiled, warnBelow: 45, isClosed: true })[1]).toBe(false);
});

test('spoiled labels are given to no copy, and a closed roll gives none', () => {
  const torn = { ...roll, spoiled: ['103–105', ' 101', rollNumber(roll, 102), '199'] };
  expect(spoiledAsKept(torn)).toEqual(['101-105', '199']);
  const given = (r: LabelRoll) => {
    const serials: number[] = [];
    for (let s = nextSerial(r, null); s !== null; s = nextSerial(r, s)) serials.push(s);
    return serials;
  };
  expect(given(torn).slice(0, 3)).toEqual([100, 106, 107]);
  expect(given(torn)).toHaveLength(94);
  expect(given({ ...torn, isClosed: true })).toEqual([]);
  expect([102, 106].map((n) => isSpoiled(torn, rollNumber(roll, n)))).toEqual([true, false]);
  expect(isSpoiled(torn, '999')).toBe(false);
});

test('however labels were spoiled and used, every number is accounted for once, and none is given twice', () =>
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: roll.from, max: roll.to })),
      fc.array(fc.tuple(fc.integer({ min: roll.from, max: roll.to }), fc.integer({ min: 0, max: 9 }))),
      (onCopies, runs) => {
        const r = { ...roll, spoiled: runs.map(([n, more]) => `${n}-${Math.min(roll.to, n + more)}`) };
        // A spoiled number may have been given to a copy on purpose.
        const used = onCopies.filter((n) => n % 3 === 0 || !isSpoiled(r, rollNumber(r, n)));
        const usedSpoiled = used.filter((n) => isSpoiled(r, rollNumber(r, n))).length;
        const last = used.length ? Math.max(...used) : null;
        const { all, isLow: _, ...parts } = rollCounts(r, { used: used.length, last, usedSpoiled });
        expect(Object.values(parts).reduce((a, b) => a + b, 0)).toBe(all);
        expect(Math.min(...Object.values(parts))).toBeGreaterThanOrEqual(0);
        let given = 0;
        for (let s = nextSerial(r, last); s !== null; s = nextSerial(r, s)) {
          expect(used.includes(s) || isSpoiled(r, rollNumber(r, s))).toBe(false);
          given++;
        }
        expect(given).toBe(parts.left);
      },
    ),
  ));
test.each<[string, Partial<LabelRoll>, RegExp]>([
  ['no name', { name: ' ' }, /name/],
  ['too long a number', { to: 999_999_999 }, /do not fit/],
  ['backwards', { to: 5 }, /not before the first/],
  ['a spoiled number of another run', { name: 'New', spoiled: ['105'] }, /“105” is no number of this roll/],
  ['a spoiled number that is none', { name: 'New', spoiled: ['torn'] }, /from 300 to 400/],
  ['a run backwards', { name: 'New', spoiled: ['350-340'] }, /like 300-309/],
  [
    'numbers of another roll',
    { name: 'Theirs', from: 150, to: 250 },
    /belong to the roll “Ours”: 31204000001504 to 31204000001991/,
  ],
  ['for a supplier and a branch', { name: 'New', supplier: 'Withy', branches: ['MR'] }, /not both/],
])('%s is told', (_, more, said) =>
  expect(rollProblems({ ...roll, from: 300, to: 400, ...more }, [roll])[0]!.message).toMatch(said),
);

test('a roll whose numbers begin with letters; letters are the same in either case', () => {
  const wick: LabelRoll = { ...roll, prefix: 'WICK', from: 1, to: 9999, length: 8, check: false };
  expect(rollProblems({ ...wick, name: 'Wick' }, [roll])).toEqual([]);
  expect(rollNumber(wick, 42)).toBe('WICK0042');
  expect(['WICK0042', 'wick0042', 'WICK00422', 'WOCK0042'].map((b) => serialIn(wick, b))).toEqual([
    42,
    42,
    null,
    null,
  ]);
  expect(rollProblems({ ...wick, name: 'Wick', check: true }, [])[0]).toMatchObject({ field: 'check' });
  expect(rollProblems({ ...wick, name: 'Wick', prefix: 'W K' }, [])[0]).toMatchObject({ field: 'prefix' });
  expect(
    rollProblems({ ...wick, name: 'More', prefix: 'wick', from: 9999, to: 9999 }, [
      { ...wick, name: 'Wick' },
    ])[0]?.message,
  ).toBe('Some of these numbers belong to the roll “Wick”: WICK9999.');
  expect(rollProblems({ ...wick, name: 'More', from: 500, to: 600 }, [wick])[0]?.message).toContain(
    'belong to the roll',
  );
});

test('a roll of our own may be meant for branches, for types, or for both', () => {
  const kits = { branches: ['MR', 'SH'], types: ['KT'] };
  const fits = (branch: string, type: string) => isRollFor(kits, { branch, type });
  expect([fits('MR', 'KT'), fits('SH', 'KT'), fits('HB', 'KT'), fits('MR', 'BK')]).toEqual([
    ...[true, true, false, false],
  ]);
  expect(isRollFor({}, { branch: 'HB', type: 'BK' })).toBe(true);
  const lists = { branches: [{ code: 'MR', name: 'Millrace' }], types: [{ code: 'KT', name: 'Kit' }] };
  expect([rollMeantFor(kits, lists), rollMeantFor({}, lists)]).toEqual(['Millrace, SH; Kit', '']);
});

describe.each<[CheckRule, string, string]>([
  // The check character of 0794 modulo 43 (ISO/IEC 16388, annex A): 0 + 7 + 9 + 4 = 20, K.
  ['mod43', '', '0794K'],
  // W is 32, the hyphen 36: 88 modulo 43 is 2.
  ['mod43', 'W-', 'W-07942'],
  // 2·4 + 3·9 + 4·7 + 5·0 = 63, which 3 more make a multiple of 11.
  ['mod11', '', '07943'],
  // 8 + 9 + 5 + 0 + 0 + 2 = 24, and 12 + 9 + 21 + 0 + 0 + 2 = 44: 6 more make tens of both.
  ['mod10', '20', '2007946'],
  ['ean', '20', '2007946'],
  ['none', 'WICK', 'WICK0794'],
])('a roll with check characters by %s behind “%s”', (check, prefix, number) => {
  const own: LabelRoll = { ...roll, ...{ check, prefix, from: 1, to: 9999, length: number.length } };
  test('its numbers end in them, and are known again', () => {
    expect(rollProblems({ ...own, name: 'Own' }, [])).toEqual([]);
    expect(rollNumber(own, 794)).toBe(number);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (serial) => {
        const barcode = rollNumber(own, serial);
        expect(barcode).toHaveLength(own.length);
        expect([serialIn(own, barcode), serialIn(own, barcode.toLowerCase())]).toEqual([serial, serial]);
        if (check === 'none') return;
        const wrong = barcode.slice(0, -1) + (barcode.endsWith('3') ? '4' : '3');
        expect(serialIn(own, wrong)).toBeNull();
      }),
    );
  });
});

test('a roll of old says only whether it has a check digit', () => {
  expect([rollCheck({ check: true }), rollCheck({ check: false })]).toEqual(['mod10', 'none']);
  for (const check of ['mod11', 'ean'] as const)
    expect(rollProblems({ ...roll, name: 'Letters', prefix: 'WICK', check }, [])[0]).toMatchObject({
      field: 'check',
    });
});

test('a number whose check character is a blank is on no label, and passed over', () => {
  // 4 + 7 + 9 + 9 + 9 = 38, the value of the blank.
  const own: LabelRoll = { ...roll, check: 'mod43', prefix: '', from: 40_000, to: 59_999, length: 6 };
  expect(rollNumber(own, 47_999)).toBe('47999 ');
  expect(nextSerial(own, 47_998)).toBe(48_000);
  expect(nextSerial({ ...own, to: 47_999 }, 47_998)).toBeNull();
  expect(nextSerial({ ...own, spoiled: ['48000-48010'] }, 47_998)).toBe(48_011);
});
