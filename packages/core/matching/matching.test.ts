import { DEFAULT_HOUSE } from '../house';
import { field, type Field, type MarcRecord } from '../marc';
import { labelledPairs } from '../testing/labelled-pairs';
import {
  carrierOf,
  DEFAULT_ACTIONS,
  DEFAULT_RULE,
  describe as describeRecord,
  findMatches,
  likeness,
  matchKeys,
  mergeFields,
  proposedOutcome,
  replaceRecord,
  ruleProblem,
  weigh,
  type MatchRule,
} from '.';
import { romanNumber } from '../text';
import { editionOf, pagesIn, partOf } from './statements';

const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const eels = record(
  { tag: '001', value: '7' },
  { tag: '003', value: 'Sup' },
  { tag: '008', value: '200101s1987    enka          001 0 eng d' },
  field('020', '  ', 'a', '0306406152'),
  field('100', '1 ', 'a', 'Reedman, Amos'),
  field('245', '10', 'a', 'Notes on eels /'),
  field('300', '  ', 'a', '212 pages ;'),
);
const changed = (tag: string, ...to: Field[]) =>
  record(...eels.fields.filter((f) => f.tag !== tag), ...to).fields;
const other = (fields: readonly Field[], leader = eels.leader): MarcRecord => ({ leader, fields });
const match = (held: MarcRecord, rule = DEFAULT_RULE, incoming = eels) =>
  weigh(describeRecord(incoming), describeRecord(held), 4, rule);

test('keys: every number, and the ways in which like descriptions meet', () => {
  const keys = matchKeys(describeRecord(eels));
  expect(keys).toContainEqual({ kind: 'isbn', key: '9780306406157' });
  expect(keys).toContainEqual({ kind: 'control', key: 'sup:7' });
  expect(keys.filter((k) => k.kind === 'alike').length).toBeGreaterThan(3);
});

describe('what decides, and what speaks against it', () => {
  test('ISBN in ten and thirteen digits are one', () => {
    const held = other(changed('020', field('020', '  ', 'a', '978-0-306-40615-7', 'q', 'paperback')));
    expect(match(held)).toMatchObject({ sure: true, doubts: [] });
    expect(match(held)!.points.map((p) => p.said)).toContain('ISBN 9780306406157');
  });
  test.each<[string, MarcRecord, RegExp]>([
    [
      'another title',
      other(changed('245', field('245', '10', 'a', 'A history of thatch'))),
      /ISBN is the same, the title is not: “A history of thatch”|control number is the same/,
    ],
    [
      'an e-book',
      other(changed('300', field('300', '  ', 'a', '1 online resource'))),
      /One is a book, the other an e-book/,
    ],
    ['a film', other(eels.fields, '00000ngm a2200000 i 4500'), /One is a book, the other a video/],
    [
      'another part',
      other(changed('245', field('245', '10', 'a', 'Notes on eels.', 'n', 'Part II /'))),
      /One is part 2, the other names no part/,
    ],
    [
      'another edition',
      other([...eels.fields, field('250', '  ', 'a', '3rd ed.')]),
      /One is edition 3, the other names none/,
    ],
    [
      'long before',
      other(changed('008', { tag: '008', value: '200101s1950    enka          001 0 eng d' })),
      /One is of 1987, the other of 1950/,
    ],
  ])('%s is no sure match, and the reason is told', (_, held, said) => {
    const found = match(held)!;
    expect(found.sure).toBe(false);
    expect(found.doubts.join(' ')).toMatch(said);
  });
  test('each guard can be switched off', () => {
    const guards = { format: false, part: false, edition: false, years: null, title: false };
    expect(match(other(eels.fields, '00000ngm a2200000 i 4500'), { ...DEFAULT_RULE, guards })!.sure).toBe(
      true,
    );
  });
  test('the number of a set does not make two parts one', () => {
    const part = (n: string) =>
      record(
        field('020', '  ', 'a', '9780306406157', 'q', '(set)'),
        field('245', '10', 'a', 'Willow.', 'n', `Volume ${n}`),
      );
    expect(match(part('1'), DEFAULT_RULE, part('2'))!.doubts).toEqual(['One is part 2, the other part 1.']);
    const entire = record(
      field('020', '  ', 'a', '9780306406157', 'q', 'set'),
      field('245', '10', 'a', 'Willow'),
    );
    const volume = record(
      field('020', '  ', 'a', '9780306406157', 'q', 'set'),
      field('020', '  ', 'a', '9781999910006', 'q', 'v. 1'),
      field('245', '10', 'a', 'Willow'),
    );
    expect(match(entire, DEFAULT_RULE, volume)!.doubts.join()).toContain('that of the set');
  });
  test('a bare control number with another title is no match at all', () => {
    const bare = (title: string) => record({ tag: '001', value: '7' }, field('245', '10', 'a', title));
    expect(match(bare('Thatch and straw'), DEFAULT_RULE, bare('Eels'))).toBeNull();
  });
  test('weights are added up; below the least nothing is told', () => {
    const number = (more: Field[]) => record(field('024', '8 ', 'a', 'TP-1234'), ...more);
    const title = field('245', '10', 'a', 'Notes on eels');
    expect(match(number([title]), DEFAULT_RULE, number([title]))!.points.map((p) => p.by)).toEqual([
      'number',
      'likeness',
    ]);
    const rule: MatchRule = { ...DEFAULT_RULE, points: [{ by: 'number', weight: 30, alone: false }] };
    expect(match(number([title]), rule, number([title]))).toBeNull();
  });
});

test('likeness explains itself point by point', () => {
  const held = other(changed('245', field('245', '10', 'a', 'Notes on eel /', 'c', 'Amos Reedman.')));
  const found = likeness(describeRecord(eels), describeRecord(held));
  expect(found.score).toBeGreaterThan(90);
  expect(found.parts.map((p) => p.said)).toEqual(
    expect.arrayContaining([
      'nearly the same title',
      'same author',
      'both 1987',
      '212 pages both',
      'both book',
    ]),
  );
});

test('several candidates: the sure one first, each once', () => {
  const description = describeRecord(eels);
  const doubtful = describeRecord(other(changed('245', field('245', '10', 'a', 'A history of thatch'))));
  const found = findMatches(
    description,
    [
      { record: 4, description: doubtful },
      { record: 9, description },
      { record: 9, description },
    ],
    DEFAULT_RULE,
  );
  expect(found.map((m) => [m.record, m.sure])).toEqual([
    [9, true],
    [4, false],
  ]);
});

describe('outcome', () => {
  const sure = match(eels)!;
  const doubtful = match(other(eels.fields, '00000ngm a2200000 i 4500'))!;
  const actions = { one: 'replace', several: 'skip', none: 'add' } as const;
  test.each([
    ['nothing matches', [], null, 'add'],
    ['one is sure', [sure], null, 'replace'],
    ['one is doubtful', [doubtful], null, 'ask'],
    ['one is sure and one doubtful', [sure, doubtful], null, 'replace'],
    ['two are sure', [sure, { ...sure, record: 5 }], null, 'skip'],
    ['the file has it twice', [], 3, 'ask'],
    ['one is sure and the file has it twice', [sure], 3, 'ask'],
  ] as const)('%s', (_, matches, repeats, outcome) =>
    expect(proposedOutcome(matches, repeats, actions).outcome).toBe(outcome),
  );
  test('nothing is replaced where it is not known which one', () =>
    expect(
      proposedOutcome([sure, { ...sure, record: 5 }], null, { ...DEFAULT_ACTIONS, several: 'replace' })
        .outcome,
    ).toBe('ask'));
});

describe('what statements say', () => {
  test.each([
    ['Part II', '', '2'],
    ['v. 3', '', '3'],
    ['Vol. XIV', '', '14'],
    ['Book two', '', '2'],
    ['Bd. 4', '', '4'],
    ['', 'Spring and summer', 'spring and summer'],
    ['', '', ''],
  ])('part %s %s is “%s”', (n, p, part) => expect(partOf(n, p)).toBe(part));
  test.each([
    ['2nd ed.', '2'],
    ['Third edition, revised', '3'],
    ['1st ed.', ''],
    ['Revised edition', 'revised'],
    ['Zweite Auflage', '2'],
    ['', ''],
  ])('edition %s is “%s”', (text, edition) => expect(editionOf(text)).toBe(edition));
  test.each([
    ['xii, 245 pages :', 245],
    ['96 p.', 96],
    ['1 online resource (58 pages)', 58],
    ['2 v.', null],
    ['156 S.', 156],
  ])('extent %s has %p pages', (text, pages) => expect(pagesIn(text)).toBe(pages));
  test.each([
    ['xiv', 14],
    ['ix', 9],
    ['mix', null],
    ['', null],
  ])('roman %s is %p', (text, n) => expect(romanNumber(text)).toBe(n));
  test('carrier from leader, form, carrier type and the old designation', () => {
    expect(carrierOf(record(field('245', '10', 'a', 'X', 'h', '[electronic resource]')))).toBe('e-book');
    expect(carrierOf(record(field('338', '  ', 'a', 'online resource')))).toBe('e-book');
    expect(carrierOf(record({ tag: '008', value: `${' '.repeat(23)}d` }))).toBe('large print');
    expect(carrierOf({ ...record(), leader: '00000njm a2200000 i 4500' })).toBe('music recording');
  });
});

test.each<[string, MatchRule, RegExp | null]>([
  ['without points', { ...DEFAULT_RULE, points: [] }, /at least one match point/],
  ['a point twice', { ...DEFAULT_RULE, points: [DEFAULT_RULE.points[0]!, DEFAULT_RULE.points[0]!] }, /twice/],
  [
    'too light',
    { ...DEFAULT_RULE, points: [{ by: 'likeness', weight: 60, alone: false }] },
    /could ever be sure/,
  ],
  [
    'a weight of nought',
    { ...DEFAULT_RULE, points: [{ by: 'isbn', weight: 0, alone: true }] },
    /from 1 to 100/,
  ],
  ['the usual one', DEFAULT_RULE, null],
])('a match rule %s', (_, rule, said) =>
  said ? expect(ruleProblem(rule)).toMatch(said) : expect(ruleProblem(rule)).toBeNull(),
);

test('a replacement keeps our protected fields and number, and takes the rest', () => {
  const held = record(
    { tag: '001', value: 'ours' },
    field('245', '10', 'a', 'Old'),
    field('590', '  ', 'a', 'our note'),
    field('650', ' 0', 'a', 'Old subject'),
    field('949', '  ', 'a', 'local'),
  );
  const theirs = record(
    { tag: '001', value: 'theirs' },
    field('245', '10', 'a', 'New'),
    field('590', '  ', 'a', 'x'),
  );
  expect(replaceRecord(held, theirs, DEFAULT_HOUSE).fields).toEqual([
    { tag: '001', value: 'ours' },
    field('245', '10', 'a', 'New'),
    field('590', '  ', 'a', 'our note'),
    field('949', '  ', 'a', 'local'),
  ]);
});
test('merging adds what is lacking and changes nothing that is there', () => {
  const held = record(
    field('245', '10', 'a', 'Eels'),
    field('260', '  ', 'a', 'Ely'),
    field('650', ' 0', 'a', 'Eels.'),
    field('590', '  ', 'a', 'ours'),
  );
  const theirs = record(
    field('020', '  ', 'a', '9780306406157'),
    field('245', '10', 'a', 'EELS'),
    field('264', ' 1', 'a', 'Ely'),
    field('520', '  ', 'a', 'About eels.'),
    field('590', '  ', 'a', 'theirs'),
    field('650', ' 0', 'a', 'Eels'),
    field('650', ' 0', 'a', 'Traps'),
    field('852', '  ', 'b', 'X'),
  );
  const merged = mergeFields(held, theirs, DEFAULT_HOUSE);
  expect(merged.fields.map((f) => f.tag)).toEqual(['020', '245', '260', '520', '650', '590', '650']);
  for (const f of held.fields) expect(merged.fields).toContainEqual(f);
  expect(mergeFields(merged, theirs, DEFAULT_HOUSE)).toEqual(merged);
});

/** How well the rules do on pairs of which it is known whether they are the same (core/testing/labelled-pairs). */
describe('labelled pairs', () => {
  const pairs = labelledPairs();
  const likenessAlone: MatchRule = {
    ...DEFAULT_RULE,
    points: [{ by: 'likeness', weight: 100, alone: true }],
  };
  const judged = (rule: MatchRule) =>
    pairs.map((p) => {
      const [a, b] = [describeRecord(p.incoming), describeRecord(p.held)];
      const kinds = new Set<string>(rule.points.map((x) => (x.by === 'likeness' ? 'alike' : x.by)));
      const keys = new Set(matchKeys(b).map((k) => `${k.kind} ${k.key}`));
      // Records that share no key never meet.
      const meet = matchKeys(a).some((k) => kinds.has(k.kind) && keys.has(`${k.kind} ${k.key}`));
      const matches = meet ? findMatches(a, [{ record: 1, description: b }], rule) : [];
      const actions = { one: 'replace', several: 'ask', none: 'add' } as const;
      return { ...p, found: matches.length > 0, outcome: proposedOutcome(matches, null, actions).outcome };
    });
  const measured: string[] = [];
  afterAll(() => process.stdout.write(`${measured.join('\n')}\n`));

  test('there are at least four hundred', () => expect(pairs.length).toBeGreaterThanOrEqual(400));
  test.each<[string, MatchRule, number, number]>([
    ['the usual rule', DEFAULT_RULE, 0.55, 1],
    ['likeness alone', likenessAlone, 0.6, 0.95],
  ])(
    '%s: nothing is replaced that is another thing; what is the same is found',
    (name, rule, sureRecall, recall) => {
      const all = judged(rule);
      const [same, different] = [all.filter((p) => p.same), all.filter((p) => !p.same)];
      const replaced = all.filter((p) => p.outcome === 'replace');
      const wrong = replaced.filter((p) => !p.same).map((p) => p.kind);
      const share = (part: readonly unknown[], of: readonly unknown[]) =>
        part.length / Math.max(1, of.length);
      const right = share(
        replaced.filter((p) => p.same),
        same,
      );
      const found = share(
        same.filter((p) => p.found),
        same,
      );
      const told = all.filter((p) => p.found);
      measured.push(
        `matching by ${name}, ${pairs.length} labelled pairs: replaced by itself precision ${share(
          replaced.filter((p) => p.same),
          replaced,
        ).toFixed(3)} recall ${right.toFixed(3)}; replaced or asked precision ${share(
          told.filter((p) => p.same),
          told,
        ).toFixed(3)} recall ${found.toFixed(3)}; ${share(
          different.filter((p) => p.outcome === 'add'),
          different,
        ).toFixed(3)} of the others added without a question`,
      );
      expect([...new Set(wrong)]).toEqual([]);
      expect(right).toBeGreaterThanOrEqual(sureRecall);
      expect(found).toBeGreaterThanOrEqual(recall);
    },
  );
});
