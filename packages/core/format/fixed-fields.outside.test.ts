// Against the format as MARC::Schema has it (Debian: libmarc-schema-perl): leader, 006, 007 and 008 of every material have the same positions with the same
// values, and leave no place out.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { positionsOf, readPositions } from '.';

interface SchemaPosition {
  readonly start: number;
  readonly end: number;
  readonly label: string;
  readonly codes?: Readonly<Record<string, unknown>>;
}
type SchemaPositions = Readonly<Record<string, SchemaPosition>>;
interface SchemaField {
  readonly positions?: SchemaPositions;
  readonly types?: Readonly<Record<string, { readonly positions: SchemaPositions }>>;
}
const listed = execFileSync('dpkg', ['-L', 'libmarc-schema-perl'], { encoding: 'utf8' });
const path = listed.split('\n').find((line) => line.endsWith('marc-schema.json'))!;
const { fields } = JSON.parse(readFileSync(path, 'utf8')) as { fields: Record<string, SchemaField> };
const theirs = (tag: string, type: string) => Object.values(fields[tag]?.types?.[type]?.positions ?? {});

/** A leader whose type of record (06) and level (07) choose each material (MARC 21, Leader and 008). */
const LEADERS: Readonly<Record<string, readonly string[]>> = {
  Books: ['am', 'aa', 'ac', 'ad', 'tm'],
  'Continuing Resources': ['ab', 'ai', 'as'],
  'Computer Files': ['mm', 'ms'],
  Maps: ['em', 'es', 'fm'],
  Music: ['cm', 'dm', 'im', 'jm'],
  'Visual Materials': ['gm', 'km', 'om', 'rm'],
  'Mixed Materials': ['pc', 'pd'],
};
const leaderOf = (types: string) => `00000n${types} a2200000 i 4500`;
/** The first characters of 006 and 007 that choose each material. */
const FORM_006: Readonly<Record<string, string>> = {
  ...{ Books: 'at', 'Continuing Resources': 's', 'Computer Files': 'm', Maps: 'ef', Music: 'cdij' },
  ...{ 'Visual Materials': 'gkor', 'Mixed Materials': 'p' },
};
const CATEGORY_007: Readonly<Record<string, string>> = {
  ...{ Map: 'a', 'Electronic resource': 'c', Globe: 'd', 'Tactile material': 'f', 'Projected graphic': 'g' },
  ...{ Microform: 'h', 'Nonprojected graphic': 'k', 'Motion picture': 'm', Kit: 'o', 'Notated music': 'q' },
  ...{
    'Remote-sensing image': 'r',
    'Sound recording': 's',
    Text: 't',
    Unspecified: 'z',
    Videorecording: 'v',
  },
};

/** Places of 008 that are undefined (MARC 21 Format for Bibliographic Data, 008, from memory); those of 006 stand 17 before them. */
const UNDEFINED: Readonly<Record<string, readonly number[]>> = {
  Books: [32],
  'Continuing Resources': [20, 30, 31, 32],
  'Computer Files': [18, 19, 20, 21, 24, 25, 27, 29, 30, 31, 32, 33, 34],
  Maps: [24, 26, 27, 30, 32],
  Music: [32, 34],
  'Visual Materials': [21, 23, 24, 25, 26, 27, 30, 31, 32],
  'Mixed Materials': [18, 19, 20, 21, 22, 24, 25, 26, 27, 28, 29, 30, 31, 32, 33, 34],
};
/** The first place of 007 says which category it is, and is not among the places of one; the third is undefined where there is one. */
const LEFT_007 = [0, 2];
const undefinedIn = (tag: string, material: string, length: number): readonly number[] =>
  tag === '008'
    ? UNDEFINED[material]!
    : tag === '006'
      ? UNDEFINED[material]!.map((i) => i - 17)
      : tag === '007'
        ? LEFT_007.filter((i) => i < length)
        : [];

const cases = [
  ...Object.entries(LEADERS).flatMap(([material, all]) =>
    all.map((types) => ({
      ...{ tag: '008', material, value: ' '.repeat(40), leader: leaderOf(types), length: 40 },
      said: [...theirs('008', 'All Materials'), ...theirs('008', material)],
    })),
  ),
  ...Object.entries(FORM_006).flatMap(([material, forms]) =>
    [...forms].map((form) => ({
      ...{ tag: '006', material, value: form.padEnd(18), leader: leaderOf('am'), length: 18 },
      said: [...theirs('006', 'All Materials'), ...theirs('006', material)],
    })),
  ),
  ...Object.entries(CATEGORY_007).map(([material, category]) => ({
    ...{ tag: '007', material, value: category.padEnd(23), leader: leaderOf('am') },
    length: Math.max(...theirs('007', material).map((p) => p.end)),
    said: theirs('007', material),
  })),
  {
    tag: 'LDR',
    material: 'all',
    value: leaderOf('am'),
    leader: leaderOf('am'),
    length: 24,
    said: Object.values(fields.LDR!.positions!),
  },
];

test('every material of the schema is there', () => {
  const named = (tag: string, kinds: object) =>
    expect(Object.keys(kinds).sort()).toEqual(
      Object.keys(fields[tag]!.types!)
        .filter((t) => !/^(All Materials|Common)$/.test(t))
        .sort(),
    );
  named('008', LEADERS);
  named('006', FORM_006);
  named('007', CATEGORY_007);
});

test.each(cases)('$tag of $material, $leader: $value', ({ tag, material, value, leader, said, length }) => {
  const ours = positionsOf(tag, value, leader);
  const place = (p: { from?: number; start?: number; to?: number; end?: number }) => [
    p.from ?? p.start,
    p.to ?? p.end,
  ];
  expect(ours.map(place)).toEqual(said.toSorted((a, b) => a.start - b.start).map(place));
  // No place is left out but those that the format leaves undefined, none is there twice.
  const left = Array.from({ length }, (_, i) => i).filter((i) => !ours.some((p) => p.from <= i && i < p.to));
  expect(left).toEqual(undefinedIn(tag, material, length));
  expect(ours.reduce((n, p) => n + p.to - p.from, left.length)).toBe(length);
  for (const p of said) {
    const full = value.padEnd(length).split('');
    for (const code of Object.keys(p.codes ?? {})) {
      if (code.length !== p.end - p.start) continue;
      full.splice(p.start, code.length, ...code);
      const read = readPositions(tag, full.join(''), leader).find((r) => r.from === p.start);
      expect([p.label, code, read?.meaning]).toEqual([p.label, code, expect.any(String)]);
      full.splice(p.start, code.length, ...value.padEnd(length).slice(p.start, p.end));
    }
  }
});
