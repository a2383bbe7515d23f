import fc from 'fast-check';
import { recordReader, writeIso2709, type Field, type MarcRecord } from '..';

// ISO 2709, 4.2-4.6: terminators and separators stand between fields, subfields and records, and nowhere else.
const text = fc.string({
  unit: fc.oneof(
    fc.constantFrom('\u001b', '\u001d', '\u001e', '\u001f', '\u0000', '\n', '$', ' '),
    fc.string({ unit: 'grapheme', minLength: 1, maxLength: 1 }),
  ),
  maxLength: 12,
});
const control: fc.Arbitrary<Field> = fc.record({ tag: fc.constantFrom('001', '005', '008'), value: text });
const data: fc.Arbitrary<Field> = fc.record({
  tag: fc.stringMatching(/^[1-9][0-9]{2}$/),
  ind1: fc.oneof(fc.constantFrom(' ', '1'), text),
  ind2: fc.oneof(fc.constantFrom(' ', '0'), text),
  subfields: fc.array(fc.record({ code: fc.oneof(fc.constantFrom('a', 'b', '9'), text), value: text }), {
    minLength: 1,
    maxLength: 4,
  }),
});
const record: fc.Arbitrary<MarcRecord> = fc.record({
  leader: fc.oneof(fc.constant('00000nam a2200000 i 4500'), text),
  fields: fc
    .tuple(fc.array(control, { maxLength: 2 }), fc.array(data, { minLength: 1, maxLength: 6 }))
    .map(([c, d]) => [...c, ...d]),
});

test('whatever a record has in it, what is written reads back as so many records with so many fields and subfields', () => {
  fc.assert(
    fc.property(fc.array(record, { minLength: 1, maxLength: 3 }), (records) => {
      const reader = recordReader('iso2709');
      const bytes = records.map((r) => Buffer.from(writeIso2709(r)));
      for (const b of bytes) {
        const inside = b.subarray(24, -1);
        expect(inside.includes(0x1d)).toBe(false);
      }
      const read = [...reader.push(Buffer.concat(bytes)), ...reader.end()].map((r) => r.record!);
      expect(
        read.map((r) => r.fields.map((f) => [f.tag, 'subfields' in f ? f.subfields.length : 0])),
      ).toEqual(records.map((r) => r.fields.map((f) => [f.tag, 'subfields' in f ? f.subfields.length : 0])));
    }),
    { numRuns: 300 },
  );
});
