// Against yaz-marcdump (Debian: yaz) and MARC::Record, MARC::File::XML, MARC::Charset (Debian: libmarc-*-perl).
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { inMarc8 } from '../../../demo/damage';
import { anyRecord } from '../testing/records';
import { decodeMarc8 } from './charset/marc8';
import { encodeMarc8 } from './charset/marc8-encode';
import { readableRecords, readIso2709, writeIso2709 } from './iso2709';
import { readMarcJson } from './json';
import { MARCXML_END, MARCXML_START, marcXmlElement } from './xml';
import { field, type MarcRecord } from './record';

const folder = mkdtempSync(join(tmpdir(), 'osier-'));
const file = (name: string, content: string | Uint8Array) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const tool = (command: string, ...args: string[]) =>
  execFileSync(command, args, { encoding: 'utf8', maxBuffer: 1 << 28 });
const perl = (script: string, ...args: string[]) => tool('perl', '-CSDA', '-e', script, ...args);
const demo = (name: string) => readFileSync(join(__dirname, '../../../demo/files', name));
const sample = fc.sample(anyRecord, { numRuns: 150, seed: 4 });
const bytesOf = (records: readonly MarcRecord[]) => Buffer.concat(records.map((r) => writeIso2709(r)));

test('yaz-marcdump reads what we write as the same records (MARC-in-JSON)', () => {
  const clean = readableRecords(readIso2709(demo('tallow-and-pike.mrc')));
  const json = tool('yaz-marcdump', '-i', 'marc', '-o', 'json', file('clean.mrc', bytesOf(clean)));
  const theirs = json
    .trim()
    .split(/\n(?=\{)/)
    .map((t) => readMarcJson(JSON.parse(t)));
  expect(theirs).toEqual(readableRecords(readIso2709(bytesOf(clean))));
  expect(theirs).toHaveLength(42);
});

test('MARC::Record reads what we write as the same fields, for records of any content', () => {
  const dumped = perl(
    `use MARC::Batch; use JSON::PP; binmode STDOUT, ':raw'; my $b = MARC::Batch->new('USMARC', $ARGV[0]); $b->strict_off; my $j = JSON::PP->new->utf8;
     while (my $r = $b->next) { print $j->encode([map { $_->is_control_field ? [$_->tag, $_->data] : [$_->tag, $_->indicator(1).$_->indicator(2), map { @$_ } $_->subfields] } $r->fields]), "\\n" }`,
    file('any.mrc', bytesOf(sample)),
  );
  const ours = sample.map((r) =>
    r.fields.map((f) =>
      'value' in f
        ? [f.tag, f.value]
        : [f.tag, f.ind1 + f.ind2, ...f.subfields.flatMap((s) => [s.code, s.value])],
    ),
  );
  expect(
    dumped
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as unknown),
  ).toEqual(ours);
  expect(ours.length).toBeGreaterThan(100);
});

test('we read what MARC::Record writes', () => {
  const path = join(folder, 'theirs.mrc');
  perl(
    `use MARC::Record; open my $o, '>:utf8', $ARGV[0]; for my $n (1..20) { my $r = MARC::Record->new; $r->encoding('UTF-8'); $r->append_fields(MARC::Field->new('001', "n$n"), MARC::Field->new('245', '1', '0', a => "Pr\\x{e9}face $n \\x{0416}", c => 'X')); print $o $r->as_usmarc }`,
    path,
  );
  const read = readIso2709(readFileSync(path));
  expect(read.flatMap((r) => r.repairs)).toEqual([]);
  expect(read.map((r) => r.record!.fields[1])).toEqual(
    Array.from({ length: 20 }, (_, i) => ({
      tag: '245',
      ind1: '1',
      ind2: '0',
      subfields: [
        { code: 'a', value: `Préface ${i + 1} Ж` },
        { code: 'c', value: 'X' },
      ],
    })),
  );
});

/** yaz leaves the numeric references of the published lossless way as they are; we read them. */
const resolved = (text: string) =>
  text.replace(/&#x([0-9A-F]+);/g, (_, code: string) => String.fromCodePoint(parseInt(code, 16)));

test('yaz-marcdump and we read MARC-8 as the same text', () => {
  const records = readableRecords(readIso2709(demo('reedling-broken.mrc'))).filter(
    (r) => !JSON.stringify(r).includes('Ã'),
  );
  const marc8 = file('marc8.mrc', Buffer.concat(records.map(inMarc8)));
  const theirs = tool('yaz-marcdump', '-i', 'marc', '-o', 'json', '-f', 'marc8', '-t', 'utf8', marc8)
    .trim()
    .split(/\n(?=\{)/)
    .map((t) => readMarcJson(JSON.parse(resolved(t)))!.fields);
  expect(readableRecords(readIso2709(readFileSync(marc8))).map((r) => r.fields)).toEqual(theirs);
});

const TEXTS = [
  'café',
  'Łódź Ḳeliʻah Đặng Thị Mỹ',
  'œuvre Æsop Þór Rørdam-Høj',
  '£5 ©1990 ±2 H₂O m² αβγ',
  'Корзина и лоза: плетение из ивы',
  'Ґанок, їжак, љубав, ћерка',
  'Καλάθι από λυγαριά',
  'קליעת סלים',
  'صناعة السلال',
  'پارچه چوب گل ژاله',
  '竹籠の編み方',
  '柳條編織',
  '버들 바구니',
  't͡s i͡a n͠g',
];
const lines = (parts: readonly Uint8Array[]) =>
  Buffer.concat(parts.flatMap((p) => [Buffer.from(p), Buffer.from('\n')]));

test('MARC::Charset decodes what we encode, in every script, and we decode the same', () => {
  const encoded = TEXTS.map((text) => encodeMarc8(text));
  for (const e of encoded) expect(Buffer.from(e).toString('latin1')).not.toContain('&#x');
  const theirs = perl(
    `use MARC::Charset 'marc8_to_utf8'; use Unicode::Normalize; open my $f, '<:raw', $ARGV[0]; while (<$f>) { chomp; print NFC(marc8_to_utf8($_)), "\\n" }`,
    file('texts', lines(encoded)),
  );
  // MARC::Charset gives the halves of a double-width mark that Unicode once had; MARC 21 now names the whole marks.
  const whole = (text: string) =>
    text
      .replace(/\ufe20|\ufe22/g, (h) => (h === '\ufe20' ? '\u0361' : '\u0360'))
      .replace(/[\ufe21\ufe23]/g, '');
  expect(theirs.trimEnd().split('\n').map(whole)).toEqual(TEXTS);
  expect(encoded.map((e) => decodeMarc8(e).text)).toEqual(TEXTS);
});

test('we decode what MARC::Charset encodes', () => {
  // It writes neither Hangul nor the double-width marks, so the last two are left out.
  const texts = TEXTS.slice(0, -2);
  const path = file('texts.txt', texts.join('\n') + '\n');
  const out = join(folder, 'texts.marc8');
  perl(
    `use MARC::Charset 'utf8_to_marc8'; open my $f, '<:utf8', $ARGV[0]; open my $o, '>:raw', $ARGV[1]; while (<$f>) { chomp; print $o utf8_to_marc8($_), "\\n" }`,
    path,
    out,
  );
  const theirs = readFileSync(out).toString('latin1').trimEnd().split('\n');
  expect(theirs.map((t) => decodeMarc8(Buffer.from(t, 'latin1')).text)).toEqual(texts);
});

test('yaz-marcdump decodes what we encode, in every script', () => {
  const records = TEXTS.map((t, i) => ({
    leader: '00000nam a2200000 i 4500',
    fields: [{ tag: '001', value: String(i) }, field('245', '10', 'a', t, 'b', `${t} :`, 'c', 'A.')],
  }));
  const path = file('scripts.mrc', Buffer.concat(records.map((r) => writeIso2709(r, 'marc8'))));
  const theirs = tool('yaz-marcdump', '-i', 'marc', '-o', 'json', '-f', 'marc8', '-t', 'utf8', path)
    .trim()
    .split(/\n(?=\{)/)
    .map((t) => readMarcJson(JSON.parse(t))!.fields);
  expect(readableRecords(readIso2709(readFileSync(path))).map((r) => r.fields)).toEqual(
    records.map((r) => r.fields),
  );
  expect(theirs).toEqual(records.map((r) => r.fields));
});

test('MARC::File::XML reads our MARCXML, and xmllint finds it well-formed', () => {
  const records = readableRecords(readIso2709(demo('tallow-and-pike.mrc')));
  const path = file('ours.xml', MARCXML_START + records.map(marcXmlElement).join('') + MARCXML_END);
  tool('xmllint', '--noout', path);
  const titles = perl(
    `use MARC::Batch; use MARC::File::XML (BinaryEncoding => 'utf8', RecordFormat => 'USMARC'); my $b = MARC::Batch->new('XML', $ARGV[0]); while (my $r = $b->next) { print $r->title, "\\n" }`,
    path,
  );
  expect(titles.trim().split('\n')).toEqual(
    records.map((r) =>
      r.fields
        .flatMap((f) => (f.tag === '245' && 'subfields' in f ? f.subfields.map((s) => s.value) : []))
        .join(' '),
    ),
  );
});

test('yaz-marcdump and we find as many records in a file with everything wrong in it as its maker put there', () => {
  const read = readIso2709(demo('reedling-broken.mrc'));
  expect(read.filter((r) => r.record)).toHaveLength(27);
  expect(read.flatMap((r) => r.repairs).every((r) => r.offset >= 0 && r.message.endsWith('.'))).toBe(true);
});
