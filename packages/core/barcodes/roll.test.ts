import fc from 'fast-check';
import { hasRightCheckDigit, rollCounts, rollNumber, rollProblems, serialIn, type LabelRoll } from '.';

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
  expect(rollCounts(roll, null)).toEqual({ all: 100, left: 100 });
  expect(rollCounts(roll, 149)).toEqual({ all: 100, left: 50 });
  expect(rollCounts(roll, 199)).toEqual({ all: 100, left: 0 });
});
test.each<[string, Partial<LabelRoll>, RegExp]>([
  ['no name', { name: ' ' }, /name/],
  ['too long a number', { to: 999_999_999 }, /do not fit/],
  ['backwards', { to: 5 }, /not before the first/],
  ['numbers of another roll', { name: 'Theirs', from: 150, to: 250 }, /belong to the roll “Ours”/],
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
  expect(rollProblems({ ...wick, name: 'More', from: 500, to: 600 }, [wick])[0]?.message).toContain(
    'belong to the roll',
  );
});
