import fc from 'fast-check';
import { anyRecord } from '../../testing/records';
import { field, isData, type MarcRecord } from '../record';
import { isShared, readIso2709, writeIso2709 } from '.';
import { newLayout, readLayout } from './clean-layout';

const leader = '00000nam a2200000 i 4500';
/** Fields that come again are looked for in files of some length. */
const first = Array.from({ length: 40 }, (_, n): MarcRecord => ({
  leader,
  fields: [field('245', '00', 'a', `File ${n}`)],
}));
const readBack = (...records: MarcRecord[]) =>
  readIso2709(Buffer.concat([...first, ...records].map((r) => writeIso2709(r))))
    .slice(first.length)
    .map((r) => r.record!);

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
      const again = [1, 2, 3, 4].flatMap(() => doubled);
      for (const [k, read] of readBack(...again).entries()) {
        expect(read.fields).toEqual(again[k]!.fields);
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
  const many = Buffer.concat(Array.from({ length: 60 }, () => bytes));
  for (const { repairs } of readIso2709(many)) expect(repairs.map((r) => r.code)).toEqual(['no-delimiter']);
});

test('the same bytes under another tag are another field', () => {
  const text = ['a', 'Reed, A., as of shared-fields.test'];
  const record = { leader, fields: ['100', '700', '710'].map((tag) => field(tag, '1 ', ...text)) };
  for (const read of readBack(record, record, record, record)) expect(read.fields).toEqual(record.fields);
});

test('a field that is linked to one in another script belongs to its record', () => {
  const linked = field('700', '1 ', '6', '880-01', 'a', 'Linked as of shared-fields.test');
  const records = [1, 2, 3, 4].map(() => ({ leader, fields: [linked] }));
  for (const { fields } of readBack(...records)) {
    expect(fields).toEqual([linked]);
    expect(isShared(fields[0]!)).toBe(false);
  }
});

test('a clean record is read the short way as it would be the long way', () => {
  let short = 0;
  fc.assert(
    fc.property(fc.array(anyRecord, { minLength: 1, maxLength: 4 }), (records) => {
      const bytes = Buffer.concat(records.map((r) => writeIso2709(r)));
      const layout = newLayout();
      if (readLayout(layout, bytes, 0, Number(bytes.toString('latin1', 0, 5)))) short++;
      // An encoding that is given is looked for field by field.
      expect(readIso2709(bytes)).toEqual(readIso2709(bytes, { charset: 'utf8' }));
    }),
    { numRuns: 200 },
  );
  expect(short).toBeGreaterThan(100);
});
