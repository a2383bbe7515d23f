import fc from 'fast-check';
import { anyRecord } from '../../testing/records';
import { field, isData, type MarcRecord } from '../record';
import { isMarked, isShared, markShared, readIso2709, writeIso2709 } from '.';

const leader = '00000nam a2200000 i 4500';
const readBack = (...records: MarcRecord[]) =>
  readIso2709(Buffer.concat(records.map((r) => writeIso2709(r)))).map((r) => r.record!);

test('a field that comes a third time is the same value, whatever record it is in', () => {
  const reeds = field('650', ' 0', 'a', 'Reeds', 'x', 'Growth as of shared-fields.test');
  const other = (n: number): MarcRecord => ({
    leader,
    fields: [field('245', '00', 'a', `Title ${n} of shared-fields.test`), reeds],
  });
  const [first, second, third, fourth] = readBack(other(1), other(2), other(3), other(4)).map(
    (r) => r.fields,
  );
  expect(first![1]).not.toBe(second![1]);
  expect(third![1]).toBe(second![1]);
  expect(fourth![1]).toBe(second![1]);
  expect([first, second, third].map((f) => f!.map(isShared))).toEqual([
    [false, false],
    [false, true],
    [false, true],
  ]);
});

test('what is read again and again is what was written, and no record has a value twice', () => {
  fc.assert(
    fc.property(fc.array(anyRecord, { minLength: 1, maxLength: 3 }), (records) => {
      const doubled = records.map((r) => ({ ...r, fields: [...r.fields, ...r.fields] }));
      for (let i = 0; i < 4; i++)
        for (const [k, read] of readBack(...doubled).entries()) {
          expect(read.fields).toEqual(doubled[k]!.fields);
          const data = read.fields.filter(isData);
          expect(new Set(data).size).toBe(data.length);
        }
    }),
    { numRuns: 60 },
  );
});

test('a field that had to be mended is told each time', () => {
  const bytes = Buffer.from(
    writeIso2709({ leader, fields: [field('500', '  ', 'a', 'Marred as of shared-fields.test')] }),
  );
  bytes[bytes.indexOf(0x1f)] = 0x20;
  for (let i = 0; i < 4; i++)
    expect(readIso2709(bytes)[0]!.repairs.map((r) => r.code)).toEqual(['no-delimiter']);
});

test('the same bytes under another tag are another field', () => {
  const text = ['a', 'Reed, A., as of shared-fields.test'];
  const record = { leader, fields: ['100', '700', '710'].map((tag) => field(tag, '1 ', ...text)) };
  for (let i = 0; i < 4; i++) expect(readBack(record)[0]!.fields).toEqual(record.fields);
});

test('a field that is linked to one in another script belongs to its record', () => {
  const linked = field('700', '1 ', '6', '880-01', 'a', 'Linked as of shared-fields.test');
  const records = [1, 2, 3, 4].map(() => ({ leader, fields: [linked] }));
  for (const { fields } of readBack(...records)) {
    expect(fields).toEqual([linked]);
    expect(isShared(fields[0]!)).toBe(false);
  }
});

test('a mark is seen in every record that has the field; the oldest of many goes, and what is not shared bears none', () => {
  const marked = { leader, fields: [field('650', ' 0', 'a', 'Marks as of shared-fields.test')] };
  const [first, second, third] = readBack(marked, marked, marked).map((r) => r.fields[0]!);
  const marks = Array.from({ length: 9 }, (_, n) => ({ n }));
  for (const mark of marks) markShared(second!, mark);
  markShared(second!, marks[8]!);
  expect(marks.map((m) => isMarked(third!, m))).toEqual([false, ...Array<boolean>(8).fill(true)]);
  markShared(first!, marks[0]!);
  expect(isMarked(first!, marks[0]!)).toBe(false);
});
