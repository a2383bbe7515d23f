// Against MARC::Lint and MARC::Schema (Debian: libmarc-lint-perl, libmarc-schema-perl): whatever they find in a record,
// our checks find too, or it stands below why not.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { fieldDefinition } from '../format';
import { DEFAULT_HOUSE } from '../house';
import { field, readableRecords, readIso2709, writeIso2709, type Field, type MarcRecord } from '../marc';
import { checkRecord } from '.';

const folder = mkdtempSync(join(tmpdir(), 'osier-'));
const file = (records: readonly MarcRecord[]) => {
  const path = join(folder, 'records.mrc');
  writeFileSync(path, Buffer.concat(records.map((r) => writeIso2709(r))));
  return path;
};
/** What a Perl script prints for each record: lines of `number<tab>message`. */
function told(script: string, records: readonly MarcRecord[]): Map<number, string[]> {
  const out = execFileSync('perl', ['-CSD', '-e', script, file(records)], {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  });
  const by = new Map<number, string[]>();
  for (const line of out.trim().split('\n').filter(Boolean)) {
    const [number, message] = line.split('\t') as [string, string];
    by.set(Number(number), [...(by.get(Number(number)) ?? []), message]);
  }
  return by;
}
const LINT = `use MARC::Batch; use MARC::Lint; my $b = MARC::Batch->new('USMARC', $ARGV[0]); $b->strict_off; $b->warnings_off;
  my $l = MARC::Lint->new; my $n = 0; while (my $r = $b->next) { $l->check_record($r); print "$n\\t$_\\n" for $l->warnings; $n++ }`;
const SCHEMA = `use MARC::Batch; use MARC::Schema; my $b = MARC::Batch->new('USMARC', $ARGV[0]); $b->strict_off; $b->warnings_off;
  my $s = MARC::Schema->new; my $n = 0;
  while (my $r = $b->next) {
    my $p = { record => [ ['LDR', undef, undef, '_', $r->leader], map { $_->is_control_field ? [$_->tag, undef, undef, '_', $_->data] : [$_->tag, $_->indicator(1), $_->indicator(2), map { @$_ } $_->subfields] } $r->fields ] };
    for my $e ($s->check($p)) { print "$n\\t", ($e->{tag} // ''), ' ', ($e->{error} // $e->{message} // ''), ' ', join(',', sort keys %{$e->{subfields} || {}}), "\\n" } $n++ }`;

/** Which of our checks says what theirs says. */
const MATCH: readonly (readonly [RegExp, readonly string[]])[] = [
  [/^1XX: Only one/, ['multiple-main-entries']],
  [/No 245 tag/, ['title-missing']],
  [/Field is not repeatable|Subfield _. is not repeatable|not repeatable|repeated/, ['repeated-field']],
  [/880: No subfield 6/, ['linkage']],
  [/Indicator \d must be|[iI]ndicator/, ['indicator-value', 'obsolete', 'nonfiling-count']],
  [/is not allowed|unknown|deprecated|not defined/, ['undefined-tag', 'obsolete']],
  [/invalid control character/, ['control-character']],
  [/^020: .*(checksum|wrong number)/, ['isbn-invalid']],
  [/^020: .*(invalid characters|preceded by space)/, ['isbn-invalid', 'isbn-qualifier', 'isbn-hyphens']],
  [/^041/, ['language-code']],
  [/^043/, ['area-code']],
  [/^245: (Must have|First subfield must be)/, ['title-order']],
  [/^245: Must end with/, ['end-mark']],
  [/^245: Subfield _[bcnp] (must|should) be preceded/, ['title-punctuation']],
  [/^245: Subfield _h/, ['medium-designation']],
  [/initials should not have a space/, ['responsibility-initials']],
  [/article|Non-filing/, ['nonfiling-count']],
];
/** What they say and we do not, on purpose. */
const EXPLAINED: readonly (readonly [RegExp, string])[] = [
  [/as final punctuation but/, 'MARC 21 allows ? and ! at the end of 245'],
  [
    /First word, die, does not appear/,
    'die is a German article (Library of Congress list); theirs is without it',
  ],
  [/Subfield _9 is not allowed/, '$9 is left to the library'],
  [/^(345: Subfield _[cd]|384: Subfield _[01]) is not allowed/, 'newer than theirs'],
  [/^041: Subfield _8/, 'a link number is no language code'],
];

const f008 = { tag: '008', value: '120508s1990    enka          000 0 eng d' };
const good: Field[] = [
  { tag: '001', value: 'w1' },
  f008,
  field('245', '00', 'a', 'Notes on eels /', 'c', 'A.'),
  field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', '1990.'),
  field('300', '  ', 'a', '20 pages :', 'b', 'illustrations ;', 'c', '24 cm'),
];
const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const plus = (...more: Field[]) => record(...good, ...more);
const titled = (indicators: string, ...pairs: string[]) =>
  record(...good.map((f) => (f.tag === '245' ? field('245', indicators, ...pairs) : f)));
const SPOILED: readonly MarcRecord[] = [
  plus(field('100', '1 ', 'a', 'A'), field('110', '2 ', 'a', 'B')),
  record(...good.filter((f) => f.tag !== '245')),
  plus(field('010', '  ', 'a', '   90123456 '), field('010', '  ', 'a', '   90123457 ')),
  plus(field('880', '  ', 'a', 'x')),
  plus(field('100', '9 ', 'a', 'Reedman, Amos.')),
  plus(field('650', ' 9', 'a', 'Eels.')),
  plus(field('500', '1 ', 'a', 'Eels.')),
  plus(field('300', '  ', 'a', 'x', 'k', 'y')),
  plus(field('100', '1 ', 'a', 'A,', 'd', '1900-', 'd', '1900-')),
  plus(field('020', '  ', 'a', '0306406153')),
  plus(field('020', '  ', 'a', '03064061')),
  plus(field('020', '  ', 'a', '9780306406158')),
  plus(field('020', '  ', 'a', 'ISBN 0306406152')),
  plus(field('020', '  ', 'a', '0306406152(pbk.)')),
  plus(field('041', '1 ', 'a', 'engf')),
  plus(field('041', '1 ', 'a', 'eng', 'h', 'enx')),
  plus(field('041', '1 ', 'a', 'eng', 'h', 'far')),
  plus(field('043', '  ', 'a', 'e-uk')),
  plus(field('043', '  ', 'a', 'e-zz---')),
  titled('00', 'b', 'notes /', 'c', 'A.'),
  titled('00', 'b', 'notes /', 'a', 'Eels', 'c', 'A.'),
  titled('00', 'a', 'Notes on eels /', 'c', 'A'),
  titled('00', 'a', 'Notes on eels', 'c', 'A.'),
  titled('00', 'a', 'Notes', 'b', 'on eels /', 'c', 'A.'),
  titled('00', 'a', 'Notes', 'n', 'part 1 /', 'c', 'A.'),
  titled('00', 'a', 'Notes', 'p', 'Eels /', 'c', 'A.'),
  titled('00', 'a', 'Notes.', 'n', 'Part 1', 'p', 'Eels /', 'c', 'A.'),
  titled('00', 'a', 'Notes', 'h', 'video /', 'c', 'A.'),
  titled('00', 'a', 'Notes on eels /', 'c', 'A. B. Reedman.'),
  titled('00', 'a', 'The eels /', 'c', 'A.'),
  titled('04', 'a', 'Eels of home /', 'c', 'A.'),
  titled('0 ', 'a', 'Eels of home /', 'c', 'A.'),
  plus(field('082', ' 4', 'a', '746.41')),
  plus(field('503', '  ', 'a', 'x')),
  plus(field('245', '00', 'a', 'Again /', 'c', 'A.')),
];

function unmatched(records: readonly MarcRecord[], theirs: Map<number, string[]>): string[] {
  return [...theirs].flatMap(([n, messages]) => {
    const rules = new Set(checkRecord(records[n]!, DEFAULT_HOUSE).map((f) => f.rule));
    return messages
      .filter((m) => !EXPLAINED.some(([pattern]) => pattern.test(m)))
      .filter((m) => !MATCH.some(([pattern, ours]) => pattern.test(m) && ours.some((r) => rules.has(r))))
      .map((m) => `${n}: ${m} (ours: ${[...rules].join(', ')})`);
  });
}

test('all that MARC::Lint finds in spoiled records, our checks find', () => {
  const theirs = told(LINT, SPOILED);
  expect(theirs.size).toBeGreaterThan(25);
  expect(unmatched(SPOILED, theirs)).toEqual([]);
});

test('all that MARC::Lint finds in the demo deliveries, our checks find', () => {
  const demo = ['tallow-and-pike.mrc', 'reedling-broken.mrc'].flatMap((name) =>
    readableRecords(readIso2709(readFileSync(join(__dirname, '../../../demo/files', name)))),
  );
  expect(unmatched(demo, told(LINT, demo))).toEqual([]);
});

/** A field of the format as it should be, but for an indicator or a code now and then. */
const spoiledField = fc
  .record({
    tag: fc
      .integer({ min: 10, max: 899 })
      .map((n) => String(n).padStart(3, '0'))
      .filter((tag) => fieldDefinition(tag)?.subfields !== undefined && tag !== '880' && tag !== '886'),
    one: fc.nat(),
    two: fc.nat(),
    parts: fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
    wrong: fc.array(fc.constantFrom(...' 0123456789abcdefghijklmnopqrstuvwxyz'), {
      minLength: 3,
      maxLength: 3,
    }),
    which: fc.nat({ max: 9 }),
  })
  .map(({ tag, one, two, parts, wrong, which }): Field => {
    const { indicators, subfields } = fieldDefinition(tag)!;
    const value = (k: 0 | 1, n: number) => {
      const values = Object.keys(indicators?.[k]?.values ?? { ' ': '' }).filter((v) => v.length === 1);
      return which === k ? wrong[k]! : (values[n % Math.max(1, values.length)] ?? ' ');
    };
    const codes = Object.keys(subfields ?? {});
    return {
      tag,
      ind1: value(0, one),
      ind2: value(1, two),
      subfields: parts.map((n, i) => ({
        code: which === 2 && i === 0 ? wrong[2]!.replace(' ', 'a') : codes[n % codes.length]!,
        value: ['Reeds', 'eng', '2001.', 'Reed Press,'][n % 4]!,
      })),
    };
  });

test('all that MARC::Lint finds in records with fields of any kind, our checks find at the same tag', () => {
  const records = fc
    .sample(fc.array(spoiledField, { minLength: 1, maxLength: 5 }), { numRuns: 600, seed: 11 })
    .map((fields) =>
      record(...[...good, ...fields].sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : 0))),
    );
  const theirs = told(LINT, records);
  const missed = [...theirs].flatMap(([n, messages]) => {
    const ours = checkRecord(records[n]!, DEFAULT_HOUSE);
    return messages
      .filter((m) => !EXPLAINED.some(([pattern]) => pattern.test(m)))
      .filter((m) => {
        const tag = /^\d{3}/.exec(m)?.[0];
        return !ours.some((f) => (tag ? f.where.tag === tag : f.rule === 'multiple-main-entries'));
      })
      .map((m) => `${n}: ${m}`);
  });
  expect([...theirs.values()].flat().length).toBeGreaterThan(500);
  expect(missed).toEqual([]);
});

test('all that MARC::Schema finds of fields, subfields and repetition, our checks find', () => {
  const theirs = told(SCHEMA, SPOILED);
  expect(theirs.size).toBeGreaterThan(5);
  expect(unmatched(SPOILED, theirs)).toEqual([]);
});

test('neither finds anything in a record that we find good', () => {
  expect(checkRecord(record(...good), DEFAULT_HOUSE)).toEqual([]);
  expect([...told(LINT, [record(...good)])]).toEqual([]);
  expect([...told(SCHEMA, [record(...good)])]).toEqual([]);
});
