// What scripts rely on: options, exit codes, what goes to which stream, and the form of every line.
import {
  marcXmlElement,
  readIso2709,
  writeIso2709,
  field,
  marcJson,
  type Field,
  type MarcRecord,
} from '@osier/core/marc';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const root = resolve(__dirname, '../..');
const folder = mkdtempSync(join(tmpdir(), 'osier-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));
const path = (name: string) => join(folder, name);
const osier = (args: string[], input?: string | Buffer) =>
  spawnSync(process.execPath, [join(root, 'scripts/osier.mjs'), ...args], {
    input,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
const record = (n: number, ...more: Field[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: `w${n}` },
    { tag: '008', value: '120508s1990    enka          000 0 eng d' },
    field('245', '00', 'a', `Café notes ${n} /`, 'c', 'A. Reed.'),
    ...more,
  ],
});
const iso = (...records: MarcRecord[]) => Buffer.concat(records.map((r) => writeIso2709(r)));
const file = (name: string, content: string | Buffer) => {
  writeFileSync(path(name), content);
  return path(name);
};
const linesOf = (text: string) =>
  text
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Record<string, unknown>);
const clean = file('clean.mrc', iso(record(1), record(2)));
const broken = file(
  'broken.mrc',
  Buffer.concat([iso(record(1)), Buffer.from('\r\n'), iso(record(2)).subarray(0, -1), iso(record(3))]),
);

describe('convert', () => {
  test.each(['iso2709', 'marcxml', 'json', 'lines', 'csv'])(
    'a clean file to %s: exit 0, nothing on standard error',
    (to) => {
      const done = osier(['convert', clean, '--to', to]);
      expect([done.status, done.stderr]).toEqual([0, '']);
      expect(done.stdout).toContain('Café notes 2');
    },
  );
  test('json is a line a record, as MARC-in-JSON', () => {
    const { stdout } = osier(['convert', clean, '--to', 'json']);
    const sized = readIso2709(readFileSync(clean)).map((r) => `${marcJson(r.record!)}\n`);
    expect(stdout).toBe(sized.join(''));
    expect(linesOf(stdout)[0]).toMatchObject({
      fields: [{ '001': 'w1' }, {}, { '245': { ind1: '0', ind2: '0' } }],
    });
  });
  test('every format that is read is found by its content, from a file or from standard input', () => {
    const xml = `<collection>${marcXmlElement(record(1))}</collection>`;
    for (const content of [iso(record(1)), Buffer.from(xml), Buffer.from(`${marcJson(record(1))}\n`)]) {
      const back = osier(['convert', '-', '--to', 'lines'], content);
      expect([back.status, back.stdout]).toEqual([
        0,
        expect.stringContaining('245 00 $aCafé notes 1 /$cA. Reed.'),
      ]);
    }
  });
  test.each(['marcxml', 'json', 'lines'])('a clean file written as %s comes back byte for byte', (as) => {
    const between = osier(['convert', clean, '--to', as]).stdout;
    const back = osier(['convert', '-', '--to', 'iso2709'], Buffer.from(between));
    expect([back.status, back.stdout]).toEqual([0, readFileSync(clean).toString()]);
  });
  test('what is said to be another format is read as that', () => {
    const done = osier(['convert', clean, '--from', 'json', '--to', 'lines']);
    expect([done.status, done.stdout]).toEqual([1, '']);
  });
  test('MARC-8 is written when asked for, with what it lacks as numbers, and read back', () => {
    const given = file('thai.mrc', iso(record(1, field('500', '  ', 'a', 'การจักสาน, Łódź.'))));
    const out = path('marc8.mrc');
    expect(osier(['convert', given, '--to', 'iso2709', '--charset', 'marc8', '--out', out]).status).toBe(0);
    const bytes = readFileSync(out).toString('latin1');
    expect(bytes[9]).toBe(' ');
    expect(bytes).toContain('&#x0E01;');
    expect(osier(['convert', out, '--to', 'lines']).stdout).toContain('$aการจักสาน, Łódź.');
  });
  test('a repaired file: exit 2, all records, one line of the report for each repair', () => {
    const done = osier(['convert', broken, '--to', 'json', '--report', path('report')]);
    expect(done.status).toBe(2);
    expect(linesOf(done.stdout).map((r) => (r.fields as object[])[0])).toEqual([
      { '001': 'w1' },
      { '001': 'w2' },
      { '001': 'w3' },
    ]);
    const report = linesOf(readFileSync(path('report'), 'utf8'));
    const first = iso(record(1)).length;
    expect(report.map(({ record: n, code, repaired }) => [n, code, repaired])).toEqual([
      [2, 'junk-between', true],
      [2, 'record-terminator', true],
    ]);
    expect(report[0]!.offset).toBe(first);
    for (const row of report)
      expect(Object.keys(row)).toEqual(['record', 'offset', 'code', 'message', 'repaired']);
  });
  test('the report of a clean file is empty', () => {
    osier(['convert', clean, '--to', 'json', '--report', path('none')]);
    expect(readFileSync(path('none'), 'utf8')).toBe('');
  });
  test('columns are field addresses', () => {
    const { stdout } = osier(['convert', clean, '--to', 'csv', '--columns', '001,245$c,008/35-37']);
    expect(stdout).toBe('001,245$c,008/35-37\r\nw1,A. Reed.,eng\r\nw2,A. Reed.,eng\r\n');
  });
  test('a table is read back, with blanks for what its columns do not say', () => {
    const columns = '001,008,245^1,245^2,245$a,245$c';
    const table = osier(['convert', clean, '--to', 'csv', '--columns', columns]).stdout;
    const again = osier(['convert', file('table.csv', table), '--to', 'csv', '--columns', columns]);
    expect([again.status, again.stdout]).toEqual([0, table]);
    const lines = osier([
      'convert',
      file('own.csv', '020$a;245$a\r\n9780306406157;Eels\r\n'),
      '--to',
      'lines',
    ]);
    expect([lines.status, lines.stdout]).toEqual([
      0,
      'LDR    00000nam a22000003u 4500\n020 ## $a9780306406157\n245 ## $aEels\n\n',
    ]);
  });
  test('nothing readable: exit 1, nothing on standard output, and no file is made', () => {
    const done = osier([
      'convert',
      file('prose.txt', 'Dear colleagues'),
      '--to',
      'json',
      '--out',
      path('made.json'),
    ]);
    expect([done.status, done.stdout, done.stderr.trim().split('\n').length]).toEqual([1, '', 1]);
    expect(existsSync(path('made.json'))).toBe(false);
  });
  test.each<[string, string[], RegExp]>([
    [
      'an option that there is not',
      ['convert', clean, '--to', 'json', '--fast'],
      /There is no option --fast/,
    ],
    ['an option without its value', ['convert', clean, '--to'], /--to needs a value/],
    ['two files', ['convert', clean, clean, '--to', 'json'], /One file at a time/],
    ['no file', ['convert', '--to', 'json'], /Name a file, or -/],
    ['no format', ['convert', clean], /--to is one of iso2709, marcxml, json, lines, csv/],
    ['MARC-8 in XML', ['convert', clean, '--to', 'marcxml', '--charset', 'marc8'], /goes with --to iso2709/],
    ['a column that is no address', ['convert', clean, '--to', 'csv', '--columns', '24'], /24/],
    [
      'a command that there is not',
      ['transform', clean],
      /There is no command “transform”; there are convert, check, find, headings, callnumbers, barcodes and stocktake/,
    ],
    ['nothing in the file', ['convert', file('empty.mrc', ''), '--to', 'json'], /empty/],
    ['the result over what is read', ['convert', clean, '--to', 'iso2709', '--out', clean], /another name/],
    [
      'the report over what is read',
      ['convert', clean, '--to', 'iso2709', '--report', clean],
      /another name/,
    ],
  ])('%s: exit 1, one line on standard error', (_, args, said) => {
    const done = osier(args);
    expect([done.status, done.stdout]).toEqual([1, '']);
    expect(done.stderr).toMatch(/^osier: .*\n$/);
    expect(done.stderr).toMatch(said);
  });
  test('nor by another name of the same file', () => {
    symlinkSync(clean, path('alias.mrc'));
    const before = readFileSync(clean);
    expect(osier(['convert', clean, '--to', 'json', '--out', path('alias.mrc')]).status).toBe(1);
    expect(readFileSync(clean).equals(before)).toBe(true);
  });
});

describe('check', () => {
  const spoiled = file(
    'spoiled.mrc',
    iso(
      record(1, field('020', '  ', 'a', '0306406152 (pbk.)')),
      record(2),
      record(3, field('020', '  ', 'a', '0306406153')),
    ),
  );
  test('every finding is a line, with where, how bad, why and the fix; exit 0', () => {
    const done = osier(['check', spoiled, '--format', 'json']);
    expect([done.status, done.stderr]).toEqual([0, '']);
    const found = linesOf(done.stdout);
    for (const f of found)
      expect(Object.keys(f)).toEqual([
        'record',
        'control',
        'tag',
        'occurrence',
        'subfield',
        'rule',
        'severity',
        'message',
        'fix',
      ]);
    expect(found.find((f) => f.rule === 'isbn-qualifier')).toEqual({
      record: 1,
      control: 'w1',
      tag: '020',
      occurrence: 0,
      subfield: 'a',
      rule: 'isbn-qualifier',
      severity: 'advice',
      message: expect.stringContaining('(pbk.)') as string,
      fix: 'Move it to its subfield',
    });
    expect(found.find((f) => f.rule === 'isbn-invalid')).toMatchObject({ record: 3, severity: 'error' });
    expect(found.every((f) => f.subfield === null || typeof f.subfield === 'string')).toBe(true);
  });
  test('as text it is for reading', () => {
    expect(osier(['check', spoiled]).stdout).toMatch(
      /^1 \(w1\) 020\$a\/11: advice: .*\[isbn-qualifier\] Fix: Move it to its subfield\.$/m,
    );
  });
  test('with --fix the safe fixes are made, and nothing else is touched', () => {
    const out = path('mended.mrc');
    expect(osier(['check', spoiled, '--format', 'json', '--fix', '--out', out]).status).toBe(0);
    const mended = readIso2709(readFileSync(out)).map((r) => r.record!);
    expect(mended.map((r) => r.fields.filter((f) => f.tag === '020'))).toEqual([
      [field('020', '  ', 'a', '9780306406157'), field('020', '  ', 'a', '0306406152', 'q', 'pbk.')],
      [],
      [field('020', '  ', 'a', '0306406153')],
    ]);
    const rules = linesOf(osier(['check', out, '--format', 'json']).stdout).map((f) => f.rule);
    expect(rules).not.toContain('isbn-qualifier');
    expect(rules).toContain('isbn-invalid');
  });
  test.each<[string, string[]]>([
    ['--fix without --out', ['check', spoiled, '--fix']],
    ['--out without --fix', ['check', spoiled, '--out', path('x.mrc')]],
    ['--out over what is read', ['check', spoiled, '--fix', '--out', spoiled]],
    ['another format', ['check', spoiled, '--format', 'xml']],
    ['no MARC', ['check', file('letter.txt', 'Dear colleagues')]],
  ])('%s: exit 1', (_, args) => expect(osier(args).status).toBe(1));
  test('in threads the findings come in the order of the file, with the numbers of its records', () => {
    const many = file(
      'many.mrc',
      iso(...Array.from({ length: 9000 }, (_, i) => record(i + 1, field('020', '  ', 'a', '0306406153')))),
    );
    const found = linesOf(osier(['check', many, '--format', 'json']).stdout).filter(
      (f) => f.rule === 'isbn-invalid',
    );
    expect(found.map((f) => f.record)).toEqual(Array.from({ length: 9000 }, (_, i) => i + 1));
    expect(found.every((f) => f.control === `w${String(f.record)}`)).toBe(true);
  });
});

describe('barcodes', () => {
  test('a line out for each line in, whatever stands there; a CR before the line end is no part of a code', () => {
    const done = osier(
      ['barcodes', '-', '--scheme', 'library14'],
      '31204000500018\r\n\n31204000500017\r\n31204\r000500018\n 3',
    );
    expect(done.status).toBe(0);
    expect(linesOf(done.stdout)).toEqual([
      { input: '31204000500018', valid: true, normal: '31204000500018', reason: null },
      { input: '', valid: false, normal: null, reason: expect.any(String) as string },
      {
        input: '31204000500017',
        valid: false,
        normal: null,
        reason: 'The check character is wrong: 7, it should be 8.',
      },
      { input: '31204\r000500018', valid: true, normal: '31204000500018', reason: null },
      { input: ' 3', valid: false, normal: null, reason: expect.any(String) as string },
    ]);
  });
  test('the two forms of an ISBN lead to each other', () => {
    const done = osier([
      'barcodes',
      file('isbn.txt', 'ISBN 1-2345-6789-x\n1234567893\n'),
      '--scheme',
      'isbn10',
    ]);
    expect(linesOf(done.stdout)).toEqual([
      {
        input: 'ISBN 1-2345-6789-x',
        valid: true,
        normal: '123456789X',
        reason: null,
        other: '9781234567897',
      },
      {
        input: '1234567893',
        valid: false,
        normal: null,
        reason: 'The check character is wrong: 3, it should be X.',
        other: null,
      },
    ]);
  });
  test.each([
    [['barcodes', '-'], /--scheme is one of isbn10/],
    [['barcodes', '-', '--scheme', 'upc'], /not “upc”/],
    [['barcodes', '/no/such/file', '--scheme', 'issn'], /There is no file/],
  ])('%j is refused in one line', (args, said) => {
    const done = osier(args);
    expect([done.status, done.stderr.trim().split('\n').length]).toEqual([1, 1]);
    expect(done.stderr).toMatch(said);
  });
});

describe('callnumbers', () => {
  test.each([
    ['dewey', ['746.9', '746.41 REE', '746.41', '746.4'], ['746.4', '746.41', '746.41 REE', '746.9']],
    ['nlm', ['WZ 100', 'QV 4', 'WA 9'], ['QV 4', 'WA 9', 'WZ 100']],
    ['lc', ['PR6019.O9 U4 1986', 'PR6019.O9', 'PR602.A1'], ['PR602.A1', 'PR6019.O9', 'PR6019.O9 U4 1986']],
    ['generic', ['Box 10', 'Box 9', 'Album 2'], ['Album 2', 'Box 9', 'Box 10']],
  ])('%s numbers in shelf order', (scheme, given, sorted) => {
    const done = osier(['callnumbers', '-', '--scheme', scheme], given.join('\n'));
    expect([done.status, done.stdout]).toEqual([0, sorted.map((s) => `${s}\n`).join('')]);
    const keys = osier(['callnumbers', '-', '--scheme', scheme, '--keys'], given.join('\r\n'))
      .stdout.trimEnd()
      .split('\n');
    expect(keys.map((k) => k.split('\t')[1])).toEqual(given);
    expect(
      [...keys].sort((a, b) => Buffer.compare(Buffer.from(a), Buffer.from(b))).map((k) => k.split('\t')[1]),
    ).toEqual(sorted);
  });
  test('a scheme that there is not: exit 1', () =>
    expect(osier(['callnumbers', '-', '--scheme', 'udc'], '1').stderr).toMatch(
      /--scheme is one of dewey, lc, nlm, own, ddc, lcc, local, generic/,
    ));
});
