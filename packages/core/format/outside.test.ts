// Against the rules of MARC::Lint (Debian: libmarc-lint-perl): fields, indicators, subfields and repeatability are the same
// as ours, or it stands below why not.
import { execFileSync } from 'node:child_process';
import { codeMeaning, fieldDefinition, isObsoleteTag } from '.';

interface Rule {
  readonly tag: string;
  readonly repeatable: boolean;
  /** As it stands there: `blank`, or values and ranges (`b` for blank). */
  readonly indicators: readonly [string, string];
  readonly subfields: ReadonlyMap<string, boolean>;
}

/** The table behind the code of MARC::Lint: a block a field, `245 NR TITLE`, `ind1 01 …`, `a NR Title`. */
function rules(): Rule[] {
  const path = execFileSync('perl', ['-MMARC::Lint', '-e', 'print $INC{"MARC/Lint.pm"}'], {
    encoding: 'utf8',
  });
  const text = execFileSync('perl', ['-ne', 'print if $d; $d = 1 if /^__DATA__/', path], {
    encoding: 'utf8',
  });
  return text.split(/\n\s*\n/).flatMap((block): Rule[] => {
    const [head, ...lines] = block.trim().split('\n');
    const [, tag, r] = /^(\d{3})\s+(N?R)\s/.exec(head ?? '') ?? [];
    if (tag === undefined || tag < '010') return [];
    const said = lines.map((l) => l.split(/\s+/));
    // Some fields are only named there.
    if (!lines.some((l) => l.startsWith('ind1'))) return [];
    const indicator = (which: string) => said.find(([what]) => what === which)?.[1] ?? 'blank';
    const subfields = said.flatMap(([codes = '', repeat]) =>
      /^(N?R)$/.test(repeat ?? '') ? [...codes].map((c) => [c, repeat === 'R'] as const) : [],
    );
    return [
      {
        tag,
        repeatable: r === 'R',
        indicators: [indicator('ind1'), indicator('ind2')],
        subfields: new Map(subfields),
      },
    ];
  });
}

/** What they say otherwise, and why ours stays. */
const EXPLAINED: Record<string, string> = {
  '071 $c': 'repeatable, by the schema that our data are read from; more is allowed than by theirs',
  '310': 'repeatable since 2022',
  '363 $8': 'repeatable by the schema',
  '506 $q': 'not repeatable by the schema',
  '538 $5': 'repeatable by the schema, as $5 is elsewhere',
  '650 $e': 'repeatable since the relator terms of subjects are',
  '852 $8': 'repeatable by the schema',
  '880 1': 'an 880 has the indicators of its partner',
  '880 2': 'an 880 has the indicators of its partner',
  '886 $a': 'an 886 carries subfields of another format',
  '886 $b': 'an 886 carries subfields of another format',
  '886 $2': 'an 886 carries subfields of another format',
};

const ASCII = Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i));
function theirValues(said: string): string {
  if (said === 'blank') return ' ';
  const range = said
    .replaceAll('b', ' ')
    .replace(/(.)-(.)/g, (_, from: string, to: string) => ASCII.filter((c) => c >= from && c <= to).join(''));
  return [...new Set(range)].sort().join('');
}

const all = rules();

test('there are rules for over two hundred fields', () => expect(all.length).toBeGreaterThan(200));

test('every field of theirs is one of ours, or was once', () => {
  const missing = all.filter(({ tag }) => !fieldDefinition(tag) && !isObsoleteTag(tag));
  expect(missing).toEqual([]);
});

test('fields, indicators and subfields are what theirs are', () => {
  const other = all.flatMap(({ tag, repeatable, indicators, subfields }) => {
    const ours = fieldDefinition(tag);
    if (!ours || isObsoleteTag(tag)) return [];
    const told: string[] = [];
    if (ours.repeatable !== repeatable) told.push(tag);
    for (const [k, said] of indicators.entries()) {
      const known = ours.indicators?.[k];
      const values = known ? ASCII.filter((c) => codeMeaning(c, known.values) !== undefined).join('') : ' ';
      if (values !== theirValues(said)) told.push(`${tag} ${k + 1}`);
    }
    for (const [code, repeats] of subfields) {
      const known = ours.subfields?.[code];
      if (!known ? !ours.obsolete?.includes(code) : (known[1] === 1) !== repeats)
        told.push(`${tag} $${code}`);
    }
    return told;
  });
  expect(other.filter((o) => EXPLAINED[o] === undefined)).toEqual([]);
  expect(Object.keys(EXPLAINED).filter((e) => !other.includes(e))).toEqual([]);
});
