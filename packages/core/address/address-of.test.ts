import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { field, isData, readIso2709, type MarcRecord, type Where } from '../marc';
import { anyRecord } from '../testing/records';
import { addressOf, findAll, isAddress, parseAddress } from '.';

const leader = '00000nam a2200000 i 4500';
const record: MarcRecord = {
  leader,
  fields: [
    { tag: '008', value: '120508s1990    enka          000 0 eng d' },
    field('245', '14', 'a', 'The eels', 'n', 'One', 'n', 'Two'),
    field('650', ' 0', 'a', 'Eels'),
    field('650', ' 0', 'a', 'Reeds'),
  ],
};

test.each<[string, Where]>([
  ['LDR/6', { field: -1, tag: 'LDR', occurrence: 0, start: 6, end: 7 }],
  ['LDR', { field: -1, tag: 'LDR', occurrence: 0 }],
  ['008/35-37', { field: 0, tag: '008', occurrence: 0, start: 35, end: 38 }],
  ['245', { field: 1, tag: '245', occurrence: 0 }],
  ['245$n[1]', { field: 1, tag: '245', occurrence: 0, subfield: 2, code: 'n' }],
  ['245$a/4', { field: 1, tag: '245', occurrence: 0, subfield: 0, code: 'a', start: 4, end: 5 }],
  ['650[1]$a', { field: 3, tag: '650', occurrence: 1, subfield: 0, code: 'a' }],
])('%s', (address, where) => expect(addressOf(record, where)).toBe(address));

const demo = readdirSync('demo/files')
  .filter((name) => name.endsWith('.mrc'))
  .flatMap((name) => readIso2709(readFileSync(`demo/files/${name}`)).flatMap((r) => r.record ?? []));

test('the address of any subfield, read again, is that subfield and no other', () => {
  fc.assert(
    fc.property(fc.oneof(fc.constantFrom(...demo), anyRecord), fc.nat(), fc.nat(), (any, n, m) => {
      const data = any.fields.flatMap((f, at) => (isData(f) && f.subfields.length ? [{ f, at }] : []));
      if (data.length === 0) return;
      const { f, at } = data[n % data.length]!;
      const subfield = m % f.subfields.length;
      // MARCspec has no sign for codes beyond these.
      if (!/^[a-z0-9]$/.test(f.subfields[subfield]!.code)) return;
      const occurrence = any.fields.slice(0, at).filter((o) => o.tag === f.tag).length;
      const where = { field: at, tag: f.tag, occurrence, subfield, code: f.subfields[subfield]!.code };
      const address = parseAddress(addressOf(any, where));
      if (!isAddress(address)) throw new Error(address.problem);
      expect(findAll(any, address)).toEqual([{ text: f.subfields[subfield]!.value, where }]);
    }),
    { numRuns: 400 },
  );
});
