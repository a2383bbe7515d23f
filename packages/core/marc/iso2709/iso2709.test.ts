import fc from 'fast-check';
import { anyRecord, comparable } from '../../testing/records';
import { field, type MarcRecord } from '../record';
import { encodeUtf8 } from '../charset/utf8';
import { iso2709Reader, readableRecords, readIso2709 } from './read';
import { writeIso2709 } from './write';

const plain: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: 'x1' },
    field('100', '1 ', 'a', 'Reedman, Amos,'),
    field('245', '10', 'a', 'Notes on eel traps /', 'c', 'Amos Reedman.'),
    field('650', ' 0', 'a', 'Willows.'),
  ],
};
const bytes = writeIso2709(plain);
const patched = (at: number, text: string, of = bytes) => {
  const copy = of.slice();
  copy.set(encodeUtf8(text), at);
  return copy;
};
const joined = (...parts: Uint8Array[]) => Uint8Array.from(parts.flatMap((p) => [...p]));
const codes = (b: Uint8Array) => readIso2709(b).map((r) => r.repairs.map((x) => x.code));

describe('ISO 2709', () => {
  test('any record written and read is the same record', () => {
    fc.assert(
      fc.property(anyRecord, (record) => {
        const [read] = readIso2709(writeIso2709(record));
        expect(comparable(read!.record!)).toEqual(comparable(record));
        expect(read!.repairs).toEqual([]);
      }),
    );
  });

  test('a record read and written unchanged is the same bytes', () => {
    fc.assert(
      fc.property(anyRecord, (record) => {
        const once = writeIso2709(record);
        expect(writeIso2709(readIso2709(once)[0]!.record!)).toEqual(once);
      }),
    );
  });

  test('chunks of any size give the same records', () => {
    fc.assert(
      fc.property(
        fc.array(anyRecord, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 50 }),
        (records, size) => {
          const all = joined(...records.map((r) => writeIso2709(r)));
          const reader = iso2709Reader();
          const found = [];
          for (let at = 0; at < all.length; at += size) found.push(...reader.push(all.slice(at, at + size)));
          found.push(...reader.end());
          expect(readableRecords(found).map(comparable)).toEqual(records.map(comparable));
        },
      ),
      { numRuns: 40 },
    );
  });

  test('any bytes at all neither throw nor hide the good record behind them', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (junk) => {
        const found = readIso2709(joined(junk, Uint8Array.from([0x1d]), bytes));
        expect(readableRecords(found).map(comparable)).toContainEqual(comparable(plain));
      }),
    );
  });

  describe('repairs, each told and the record whole', () => {
    const noTerminator = bytes.slice(0, -1);
    test.each<[string, Uint8Array, string]>([
      ['wrong record length', patched(0, '00120'), 'record-length'],
      ['length that is no number', patched(0, 'xxxxx'), 'record-length'],
      ['wrong base address', patched(12, '00033'), 'base-address'],
      ['directory offset off', patched(24 + 12 + 7, '00001'), 'directory'],
      ['directory length off', patched(24 + 12 + 3, '9999'), 'directory'],
      ['directory with letters', patched(24 + 12 + 3, 'abcd'), 'directory'],
      ['missing record terminator before another record', joined(noTerminator, bytes), 'record-terminator'],
      ['line end between records', joined(encodeUtf8('\r\n'), bytes), 'junk-between'],
      ['byte order mark', joined(encodeUtf8('\ufeff'), bytes), 'byte-order-mark'],
    ])('%s', (_, damaged, code) => {
      expect(codes(damaged)[0]).toContain(code);
      expect(comparable(readIso2709(damaged)[0]!.record!).fields).toEqual(plain.fields);
    });

    test('a truncated last record keeps the fields that are there', () => {
      const [read] = readIso2709(bytes.slice(0, -20));
      expect(read!.repairs.map((r) => r.code)).toContain('truncated');
      expect(read!.record!.fields.slice(0, 2)).toEqual(plain.fields.slice(0, 2));
    });

    test('offsets count bytes of the file', () => {
      const [, second] = readIso2709(joined(bytes, patched(0, '00120')));
      expect(second!.offset).toBe(bytes.length);
      expect(second!.repairs[0]!.offset).toBe(bytes.length);
    });

    test('a line end after the last record is no record', () => {
      expect(readIso2709(joined(bytes, encodeUtf8('\n')))).toHaveLength(1);
    });

    test('doubled terminators are passed over', () => {
      expect(readableRecords(readIso2709(joined(bytes, Uint8Array.from([0x1d]), bytes)))).toHaveLength(2);
    });
  });

  describe('fields that are not as they should be', () => {
    const raw = (body: string) => {
      const length = encodeUtf8(body).length + 1;
      const data = `245${String(length).padStart(4, '0')}00000\u001e${body}\u001e\u001d`;
      const leader = `${String(24 + encodeUtf8(data).length).padStart(5, '0')}nam a22000372  4500`.replace(
        '00037',
        '00037',
      );
      return encodeUtf8(`${leader.slice(0, 12)}00037${leader.slice(17)}${data}`);
    };
    test.each([
      ['no indicators', '\u001faTitle', ' ', ' ', 'Title', 'indicators'],
      ['one indicator', '1\u001faTitle', '1', ' ', 'Title', 'indicators'],
      ['text before the first subfield', '10Title', '1', '0', 'Title', 'no-delimiter'],
    ])('%s', (_, body, ind1, ind2, value, code) => {
      const [read] = readIso2709(raw(body));
      expect(read!.record!.fields[0]).toEqual({ tag: '245', ind1, ind2, subfields: [{ code: 'a', value }] });
      expect(read!.repairs.map((r) => r.code)).toContain(code);
    });
  });
});
