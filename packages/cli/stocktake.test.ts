// The published form of `osier stocktake`: every part of the answer against the same rules reckoned slowly.
import { generatedShelf, referenceStocktake, type GeneratedShelf } from '@osier/core/testing';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const root = resolve(__dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'osier-stocktake-'));
afterAll(() => rmSync(folder, { recursive: true }));
const file = (name: string, content: string) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const run = (holdings: string, scans: string, stretch: string) =>
  spawnSync(
    process.execPath,
    [
      join(root, 'scripts/osier.mjs'),
      'stocktake',
      '--holdings',
      holdings,
      '--scans',
      scans,
      '--stretch',
      stretch,
    ],
    { encoding: 'utf8', maxBuffer: 1 << 28 },
  );
const cell = (text: string) => `"${text.replaceAll('"', '""')}"`;
const csvOf = (shelf: GeneratedShelf) =>
  [
    'last_seen,barcode,title,author,call_number,scheme,branch,location,status',
    ...shelf.copies.map((c) =>
      [c.lastSeen, c.barcode, c.title, c.author, c.callNumber, c.scheme, c.branch, c.location, c.status]
        .map(cell)
        .join(','),
    ),
  ].join('\r\n');
const stretchOf = (sections: GeneratedShelf['sections']) => ({
  ...{ branch: 'HILL', walked_on: '2026-03-18', seen_since: '2026-03-09', skip_run_min: 5 },
  barcode: { length: 14, check: 'mod10', prefix: '31204' },
  sections,
});

interface Printed {
  missing: string[];
  skipped: { location: string; copies: string[] }[];
  accounted: Record<string, string[]>;
  found: Record<string, string[]>;
  elsewhere: Record<string, string[]>;
  order: { min_moves: Record<string, number>; move: Record<string, string[]> };
  repeated: string[];
  unknown: { line: number; code: string; why: string }[];
  misread: { line: number; code: string; barcode: string }[];
}
const sorted = (of: Record<string, string[]>) =>
  Object.fromEntries(Object.entries(of).flatMap(([k, v]) => (v.length ? [[k, v.toSorted()]] : [])));

test.each([
  [60, 1],
  [60, 2],
  [250, 3],
  [700, 4],
  [700, 5],
  [1500, 6],
])('%i copies, shelf %i: as the rules say', (size, seed) => {
  const shelf = generatedShelf(size, seed);
  const stretch = stretchOf(shelf.sections);
  const done = run(
    file('h.csv', csvOf(shelf)),
    file('s.txt', shelf.lines.join('\n')),
    file('t.json', JSON.stringify(stretch)),
  );
  expect([done.status, done.stderr]).toEqual([0, '']);
  const ours = JSON.parse(done.stdout) as Printed;
  const theirs = referenceStocktake(shelf.copies, shelf.lines, stretch, ours.order.move);
  expect(ours.order.min_moves).toEqual(theirs.minMoves);
  expect(Object.fromEntries(Object.entries(ours.order.move).map(([k, v]) => [k, v.length]))).toEqual(
    theirs.minMoves,
  );
  expect(ours.unknown.map(({ line, code }) => ({ line, code }))).toEqual(theirs.unknown);
  expect(ours.misread).toEqual(theirs.misread);
  expect(ours.missing).toEqual(theirs.missing);
  expect(ours.skipped).toEqual(theirs.skipped);
  expect(sorted(ours.accounted)).toEqual(sorted(theirs.accounted));
  expect(sorted(ours.found)).toEqual(sorted(theirs.found));
  expect(sorted(ours.elsewhere)).toEqual(sorted(theirs.elsewhere));
  expect(ours.repeated.toSorted()).toEqual(theirs.repeated.toSorted());
});

test('what was done to a shelf comes out', () => {
  const shelf = generatedShelf(4000, 11);
  const done = run(
    file('h.csv', csvOf(shelf)),
    file('s.txt', shelf.lines.join('\n')),
    file('t.json', JSON.stringify(stretchOf(shelf.sections))),
  );
  const { missing, skipped, accounted, misread } = JSON.parse(done.stdout) as Printed;
  const told = new Set([...missing, ...skipped.flatMap((s) => s.copies), ...Object.values(accounted).flat()]);
  // A copy may stand elsewhere in the walk, or be what a misread is taken for.
  const stood = new Set([
    ...shelf.lines.map((l) => l.replace(/[^0-9]/g, '')),
    ...misread.map((m) => m.barcode),
  ]);
  const gone = [...shelf.taken, ...shelf.passed].filter((code) => !stood.has(code));
  expect(gone.length).toBeGreaterThan(40);
  expect(gone.filter((code) => !told.has(code))).toEqual([]);
  expect(skipped.length).toBeGreaterThan(0);
});

test.each<[string, () => [string, string, string], RegExp]>([
  ['a file that is not there', () => [file('h', 'barcode'), join(folder, 'none.txt'), file('t', '{}')], /./],
  ['a stretch that is no JSON', () => [file('h', 'barcode'), file('s', ''), file('t', '{')], /is not JSON/],
  [
    'a stretch without its parts',
    () => [file('h', 'barcode'), file('s', ''), file('t', '{"branch": "A"}')],
    /required/,
  ],
  [
    'a missing column',
    () => [
      file('h', 'barcode,title\n1,A\n'),
      file('s', ''),
      file(
        't',
        JSON.stringify(stretchOf([{ location: 'OPEN', first_line: 1, last_line: 1, order: 'call' }])),
      ),
    ],
    /no column call_number/,
  ],
])('%s: one line, exit 1', (_, files, text) => {
  const done = run(...files());
  expect([done.status, done.stdout]).toEqual([1, '']);
  expect(done.stderr.trim().split('\n')).toHaveLength(1);
  expect(done.stderr).toMatch(text);
});
