import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const root = resolve(__dirname, '../..');
const osier = (args: string[], input?: string | Buffer) =>
  spawnSync(process.execPath, [join(root, 'packages/cli/dist/osier.mjs'), ...args], {
    input,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
const demo = (name: string) => join(root, 'demo/files', name);
const folder = mkdtempSync(join(tmpdir(), 'osier-cli-'));

test('a clean file is converted with exit 0, and back to the same bytes', () => {
  const json = osier(['convert', demo('tallow-and-pike.mrc'), '--to', 'json']);
  expect(json.status).toBe(0);
  expect(json.stdout.trim().split('\n')).toHaveLength(42);
  const path = join(folder, 'records.json');
  writeFileSync(path, json.stdout);
  osier(['convert', path, '--to', 'iso2709', '--out', join(folder, 'back.mrc')]);
  expect(readFileSync(join(folder, 'back.mrc')).equals(readFileSync(demo('tallow-and-pike.mrc')))).toBe(true);
});
test('a broken file: exit 2, all that can be read, a report with offsets', () => {
  const report = join(folder, 'report');
  const done = osier(['convert', demo('reedling-broken.mrc'), '--to', 'marcxml', '--report', report]);
  expect(done.status).toBe(2);
  expect(done.stdout.match(/<record>/g)).toHaveLength(27);
  const rows = readFileSync(report, 'utf8')
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Record<string, unknown>);
  expect(rows[0]).toEqual({
    record: 1,
    offset: 0,
    code: 'byte-order-mark',
    message: expect.any(String) as string,
    repaired: true,
  });
});
test.each<[string, string[], RegExp]>([
  ['no file', ['convert', 'nowhere.mrc', '--to', 'json'], /^osier: There is no file nowhere\.mrc\.\n$/],
  ['wrong usage', ['convert', 'x', '--to', 'docx'], /^osier: --to is one of iso2709/],
  [
    'not MARC',
    ['convert', demo('trolley-of-discards.txt'), '--to', 'json'],
    /^osier: This looks like a list of scanned barcodes/,
  ],
  ['no command', [], /^osier: Give a command/],
])('%s: exit 1 and one line on standard error', (_, args, said) => {
  const done = osier(args);
  expect([done.status, done.stdout]).toEqual([1, '']);
  expect(done.stderr).toMatch(said);
});
test('from standard input, as lines for reading', () => {
  expect(
    osier(['convert', '-', '--to', 'lines'], readFileSync(demo('lyngby-exchange.xml'))).stdout,
  ).toContain('\n245 1');
});
test('call numbers in shelf order, or with their keys, which sort as bytes', () => {
  const list = 'QA 100 .A2\nQA 9 .C3\nQA 76.7 .B4\n';
  expect(osier(['callnumbers', '-', '--scheme', 'lc'], list).stdout).toBe(
    'QA 9 .C3\nQA 76.7 .B4\nQA 100 .A2\n',
  );
  const keys = osier(['callnumbers', '-', '--scheme', 'lc', '--keys'], list).stdout;
  const sorted = execFileSync('sort', { input: keys, encoding: 'utf8', env: { LC_ALL: 'C' } });
  expect(
    sorted
      .trim()
      .split('\n')
      .map((l) => l.split('\t')[1]),
  ).toEqual(['QA 9 .C3', 'QA 76.7 .B4', 'QA 100 .A2']);
});
