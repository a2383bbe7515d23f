import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const root = resolve(__dirname, '../..');
const osier = (args: string[], input?: string | Buffer) =>
  spawnSync(process.execPath, [join(root, 'scripts/osier.mjs'), ...args], {
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

test('merges tried on fields: a line in, a line out, whatever the lines are', () => {
  const lines = [
    '{"kept":["100 1_ $aQuillfeather, Ada,$d1871-1940"],"lost":[["100 1_ $aQuillfeather, A."]],"fields":["700 1_ $aQuillfeather, A.,$eeditor."],"leader":"00000nam a2200000 i 4500"}',
    '{"kept":["100 1_ $aA"],"lost":[["110 2_ $aB"]],"fields":[]}',
    'nonsense',
    '[]',
    '{"kept":["700 1_ $aCosts $$5,$eeditor."],"lost":[["700 1_ $aCost $$5"]],"fields":["700 12 $aCost $$5.$tPrices."]}',
  ];
  const done = osier(['headings', '--merge', '-', '--format', 'json'], `${lines.join('\n')}\n`);
  expect(done.status).toBe(0);
  const out = done.stdout
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Record<string, unknown>);
  expect(out).toEqual([
    {
      fields: ['700 1_ $aQuillfeather, Ada,$d1871-1940,$eeditor.'],
      notes: [],
      keptRecord: ['100 1_ $aQuillfeather, Ada,$d1871-1940', '400 1_ $aQuillfeather, A.'],
    },
    { error: 'The headings are of two kinds.' },
    { error: 'The line is not JSON.' },
    { error: expect.stringContaining('a list of fields') as string },
    {
      fields: ['700 12 $aCosts $$5.$tPrices.'],
      notes: [],
      keptRecord: ['100 1_ $aCosts $$5', '400 1_ $aCost $$5'],
    },
  ]);
});

test('calls side by side, when there is nothing built yet, do not break each other', async () => {
  const dist = join(root, 'packages/cli/dist');
  const source = join(root, 'packages/cli/main.ts');
  // Another time of change is another state of the sources.
  utimesSync(source, new Date(), new Date());
  const calls = await Promise.all(
    Array.from(
      { length: 6 },
      (_, i) =>
        new Promise<string>((done) =>
          setTimeout(() => {
            const child = spawn(process.execPath, [
              join(root, 'scripts/osier.mjs'),
              'callnumbers',
              '-',
              '--scheme',
              'lc',
            ]);
            let said = '';
            child.stdout.on('data', (d: Buffer) => (said += d.toString()));
            child.stderr.on('data', (d: Buffer) => (said += d.toString()));
            child.on('close', (code) => done(`${code} ${said}`));
            child.stdin.end('QA76 .D3\n');
          }, i * 60),
        ),
    ),
  );
  expect(calls).toEqual(calls.map(() => '0 QA76 .D3\n'));
  expect(readdirSync(dist).filter((n) => /lock|\./.test(n))).toEqual([]);
});

test('osier headings: look-alikes of a file as groups, with records as evidence', () => {
  const lines = (...fields: string[]) => `=LDR  00000nam a2200000 i 4500\n${fields.join('\n')}\n\n`;
  const json = (...fields: object[]) =>
    JSON.stringify({ leader: '00000nam a2200000 i 4500', fields: [{ '001': '1' }, ...fields] });
  const name = (tag: string, ...subfields: object[]) => ({ [tag]: { ind1: '1', ind2: ' ', subfields } });
  const records = [
    json(name('100', { a: 'Quillfeather, Ada,' }, { d: '1871-1940,' }, { e: 'author.' })),
    json(name('700', { a: 'Quillfeather, A.,' }, { d: '1871-1940.' })),
    json(name('700', { a: 'QUILLFEATHER, ADA,' }, { d: '1871-1940' })),
    json(name('700', { a: 'Quillfeather, Agnes.' })),
  ].join('\n');
  const done = osier(['headings', '-', '--format', 'json'], records);
  expect([done.status, done.stderr]).toEqual([0, '']);
  const out = done.stdout.trim().split('\n');
  expect(out.map((l) => JSON.parse(l) as unknown)).toEqual([
    {
      type: 'personal',
      verdict: 'same',
      members: [
        'QUILLFEATHER, ADA, 1871-1940',
        'Quillfeather, A., 1871-1940',
        'Quillfeather, Ada, 1871-1940',
      ],
      evidence: expect.arrayContaining([expect.any(String)]) as unknown,
    },
  ]);
  expect(osier(['headings', '-'], lines('=245  10$aAlone')).stdout).toBe('');
  expect(osier(['headings', '-'], '').status).toBe(1);
  expect(osier(['headings', '-', '--merge', '--records', 'x'], '').status).toBe(1);
});

test('a query finds records of a file, streamed in the format that is asked for', () => {
  const file = demo('tallow-and-pike.mrc');
  const all = osier(['convert', file, '--to', 'json']).stdout.trim().split('\n');
  const ids = (text: string) =>
    text
      .trim()
      .split('\n')
      .filter(Boolean)
      .map((l) => (JSON.parse(l) as { fields: { '001'?: string }[] }).fields.find((f) => f['001'])?.['001']);
  const late = osier(['find', file, 'year >= 2010 and language = eng', '--format', 'json']);
  expect(late.status).toBe(0);
  const year = (line: string) =>
    (JSON.parse(line) as { fields: { '008'?: string }[] }).fields.find((f) => f['008'])!['008']!;
  expect(ids(late.stdout)).toEqual(
    ids(all.filter((l) => year(l).slice(7, 11) >= '2010' && year(l).slice(35, 38) === 'eng').join('\n')),
  );
  expect(late.stderr).toMatch(new RegExp(`^osier: ${ids(late.stdout).length} of 42 records found\\.\n$`));
  expect(osier(['find', file, 'title = zzz', '--format', 'marcxml']).stdout).toMatch(
    /<collection[^>]*>\s*<\/collection>\s*$/,
  );
});
test.each([
  ['titel = eels', /There is no index “titel”/],
  ['title = "eels', /character/],
  ['branch = SH', /asks for holdings; a file has records only/],
  ['title = eels not status = lost', /asks for copies; a file has records only/],
  ['finding = isbn', /asks for what the checks found/],
])('a query that cannot be answered of a file is told: %s', (query, said) => {
  const done = osier(['find', demo('tallow-and-pike.mrc'), query]);
  expect([done.status, done.stdout]).toEqual([1, '']);
  expect(done.stderr).toMatch(said);
});
