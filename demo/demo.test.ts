import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { controlNumbers, isbns } from '@osier/core/access';
import { hasRightCheckDigit } from '@osier/core/barcodes';
import { checkRecord } from '@osier/core/checks';
import { DEFAULT_HOUSE } from '@osier/core/house';
import { authorityFile } from './authorities';
import { brokenDelivery, cleanDelivery, exchangeDelivery, stocktakeFile, trolleyFile } from './files';
import { LISTS, makeLibrary } from './library';

const library = makeLibrary();

test('the same library every time', () =>
  expect(JSON.stringify(makeLibrary())).toBe(JSON.stringify(library)));
test('about 1,500 records, 3,000 copies, 900 headings, forty authors in two spellings, three branches', () => {
  expect(library.records).toHaveLength(1500);
  expect(library.copies.length).toBeGreaterThan(2800);
  expect(library.headings.length).toBeGreaterThan(800);
  expect(library.authorsTwice).toBe(40);
  expect(LISTS.branches).toHaveLength(3);
  expect(library.copies.filter((c) => ['lost', 'missing'].includes(c.copy.status)).length).toBeGreaterThan(
    30,
  );
  expect(library.loans.length).toBeGreaterThan(100);
});
test('barcodes are right and each is there once; control numbers too; ISBNs but for a few books catalogued twice', () => {
  expect(library.copies.every((c) => hasRightCheckDigit(c.copy.barcode))).toBe(true);
  expect(new Set(library.copies.map((c) => c.copy.barcode)).size).toBe(library.copies.length);
  const twice = (of: (marc: (typeof library.records)[number]['marc']) => readonly string[]) => {
    const keys = library.records.flatMap((r) => of(r.marc));
    return keys.length - new Set(keys).size;
  };
  expect(twice((marc) => controlNumbers(marc))).toBe(0);
  expect(twice((marc) => isbns(marc))).toBe(3);
});
test('a believable share of what goes wrong, and no more', () => {
  const bad = library.records.filter((r) =>
    checkRecord(r.marc, DEFAULT_HOUSE).some((f) => f.severity === 'error'),
  ).length;
  const noticed = library.records.filter((r) => checkRecord(r.marc, DEFAULT_HOUSE).length > 0).length;
  expect(bad).toBeLessThan(30);
  expect(noticed / library.records.length).toBeGreaterThan(0.1);
  expect(noticed / library.records.length).toBeLessThan(0.7);
});
test.each<[string, () => Uint8Array | string]>([
  ['tallow-and-pike.mrc', () => cleanDelivery(library)],
  ['reedling-broken.mrc', () => brokenDelivery(library)],
  ['lyngby-exchange.xml', exchangeDelivery],
  ['stocktake-millrace-746.txt', () => stocktakeFile(library)],
  ['trolley-of-discards.txt', () => trolleyFile(library)],
  ['wickmere-names.mrc', authorityFile],
])('demo/files/%s is what the generator makes', (name, make) =>
  expect(readFileSync(join(__dirname, 'files', name)).equals(Buffer.from(make()))).toBe(true),
);
