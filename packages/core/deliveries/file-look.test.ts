import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEFAULT_HOUSE } from '../house';
import { encodeUtf8 } from '../marc';
import { fileLook } from '.';

const look = (bytes: Uint8Array, size = 4096) => {
  const l = fileLook(DEFAULT_HOUSE);
  for (let at = 0; at < bytes.length; at += size) l.push(bytes.subarray(at, at + size));
  l.end();
  return l.look();
};
const demo = (name: string) => readFileSync(join(__dirname, '../../../demo/files', name));

test('a broken file: how many records, what was mended, what the checks found, with the first of each kind', () => {
  const found = look(demo('reedling-broken.mrc'));
  expect(found).toMatchObject({ format: 'iso2709', problem: null, records: 27, unreadable: 0 });
  expect(found.repaired).toBeGreaterThanOrEqual(8);
  const mark = found.repairs.find((r) => r.code === 'byte-order-mark')!;
  expect(mark).toMatchObject({ records: 1, example: { record: 1, offset: 0 } });
  const subject = found.findings.find((f) => f.rule === 'duplicate-subject')!;
  expect(subject).toMatchObject({ title: 'Duplicate subject heading', severity: 'warning' });
  expect(subject.safe).toBe(subject.findings);
  expect(found.findings.map((f) => f.severity)).toEqual(
    [...found.findings.map((f) => f.severity)].sort(
      (a, b) => ['error', 'warning', 'advice'].indexOf(a) - ['error', 'warning', 'advice'].indexOf(b),
    ),
  );
});
test('the same whatever the pieces are', () => {
  const file = demo('tallow-and-pike.mrc');
  expect(look(file, 777)).toEqual(look(file, file.length));
  expect(look(file).titles).toHaveLength(5);
});
test.each<[string, Uint8Array, RegExp]>([
  ['a letter', encodeUtf8('Dear colleagues, here are the records.'), /plain text/],
  ['nothing', new Uint8Array(0), /empty/],
  ['a table', encodeUtf8('title,author\nA,B\n'), /table/],
])('%s is told for what it is', (_, bytes, said) => expect(look(bytes).problem).toMatch(said));
test('what stands behind the last record is told with it', () => {
  const file = demo('tallow-and-pike.mrc');
  const found = look(new Uint8Array([...file, 0x1d]));
  expect(found).toMatchObject({ records: 42, repaired: 1 });
  expect(found.repairs).toMatchObject([{ code: 'record-terminator', example: { record: 42 } }]);
});
