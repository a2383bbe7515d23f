import fc from 'fast-check';
import { invert, update } from '../changes';
import { checkerFor } from '../checks';
import { applyTransaction, replaceText, transactionBetween, type EditDone } from '../editing';
import { DEFAULT_HOUSE } from '../house';
import { field, type Field, type MarcRecord } from '../marc';
import { anyRecord } from '../testing/records';
import {
  BUILT_IN,
  readRecipe,
  recipeFile,
  recipeProblems,
  recipeRunner,
  STEP_KINDS,
  stepProblems,
  stepSentence,
  stepsFromEdit,
  type Recipe,
  type Step,
} from '.';

const checker = checkerFor(DEFAULT_HOUSE);
const runRecipe = (r: MarcRecord, recipe: Recipe) => recipeRunner(recipe, checker)(r);
const firstOf = (step: string) => STEP_KINDS.find((k) => k.step === step)!.first;
const house = BUILT_IN.find((r) => r.id === 'house-style')!;
const record = (language: string, ...fields: Field[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '008', value: `120508s1990    enka   g      000 0 ${language} d` }, ...fields],
});
const run = (r: MarcRecord, ...steps: Step[]) => runRecipe(r, { id: 'x', name: 'x', steps });
const after = (fields: Field[], ...steps: Step[]) =>
  run(record('eng', ...fields), ...steps).record.fields.slice(1);
const eels = [
  field('245', '14', 'a', 'THE WILLOW BED :', 'b', 'notes /', 'c', 'A. Reed.'),
  field('650', ' 0', 'a', 'Willows', 'x', 'Uses', 'v', 'Handbooks.'),
  field('650', ' 0', 'a', 'Eels', 'v', 'Juvenile literature.'),
  field('852', '  ', 'b', 'SEDGE', 'p', '31204000517715'),
];
const only = (tag: string, fields: readonly Field[]) => fields.filter((f) => f.tag === tag);

test('the built-in recipe does its three steps and says which touched', () => {
  const before = record(
    'eng',
    field('082', '04', 'a', '746.41/20942', '2', '23'),
    field('245', '14', 'a', 'The Willow bed :', 'b', 'The Story'),
    field('650', ' 0', 'a', 'Willows.'),
    field('650', ' 0', 'a', 'willows'),
    field('650', ' 7', 'a', 'Willows', '2', 'wick'),
  );
  const { record: cleaned, touched } = runRecipe(before, house);
  expect(touched).toEqual([0, 1, 2]);
  expect(cleaned.fields.slice(1)).toEqual([
    field('082', '04', 'a', '746.41', '2', '23'),
    field('245', '14', 'a', 'The willow bed :', 'b', 'The Story'),
    field('650', ' 0', 'a', 'Willows.'),
    field('650', ' 7', 'a', 'Willows', '2', 'wick'),
  ]);
});

const note = field('500', '  ', 'a', 'Note.');
test.each<[string, Step, string, Field[]]>([
  ['adds a field', { step: 'add-field', field: note, ifAbsent: true }, '500', [note]],
  [
    'does not add one that is there',
    { step: 'add-field', field: eels[0]!, ifAbsent: true },
    '245',
    [eels[0]!],
  ],
  ['takes the last away', { step: 'delete-field', tags: '65.', which: 'last' }, '650', [eels[1]!]],
  [
    'takes away what matches',
    { step: 'delete-field', tags: '650', which: 'all', match: { find: 'eel' } },
    '650',
    [eels[1]!],
  ],
  ['copies a field', { step: 'copy-field', tags: '245', to: '246' }, '246', [{ ...eels[0]!, tag: '246' }]],
  ['moves fields', { step: 'move-field', tags: '650', to: '690' }, '650', []],
  [
    'sets a subfield',
    { step: 'set-subfield', tags: '852', code: 'c', value: 'OPEN', ifAbsent: true },
    '852',
    [field('852', '  ', 'b', 'SEDGE', 'p', '31204000517715', 'c', 'OPEN')],
  ],
  [
    'leaves one that is there',
    { step: 'set-subfield', tags: '852', code: 'b', value: 'X', ifAbsent: true },
    '852',
    [eels[3]!],
  ],
  [
    'takes a subfield away',
    { step: 'delete-subfield', tags: '852', code: 'p', which: 'all' },
    '852',
    [field('852', '  ', 'b', 'SEDGE')],
  ],
  [
    'copies a subfield',
    { step: 'copy-subfield', tags: '852', code: 'b', toCode: 'a' },
    '852',
    [field('852', '  ', 'b', 'SEDGE', 'p', '31204000517715', 'a', 'SEDGE')],
  ],
  [
    'moves a subfield',
    { step: 'move-subfield', tags: '852', code: 'b', toCode: 'a' },
    '852',
    [field('852', '  ', 'a', 'SEDGE', 'p', '31204000517715')],
  ],
  [
    'sets an indicator',
    { step: 'set-indicator', tags: '852', which: 1, value: '1', from: ' ' },
    '852',
    [field('852', '1 ', 'b', 'SEDGE', 'p', '31204000517715')],
  ],
  [
    'replaces text as it stands',
    { step: 'replace-text', tags: '852', codes: 'b', match: { find: 'SEDGE' }, by: '$1 (M)' },
    '852',
    [field('852', '  ', 'b', '$1 (M)', 'p', '31204000517715')],
  ],
  [
    'replaces by an expression with groups',
    {
      step: 'replace-text',
      tags: '852',
      codes: 'p',
      match: { find: '^(\\d)(\\d{4})', expression: true },
      by: '$1 $2 ',
    },
    '852',
    [field('852', '  ', 'b', 'SEDGE', 'p', '3 1204 000517715')],
  ],
  [
    'writes as a sentence',
    { step: 'change-case', tags: '245', codes: 'a', to: 'sentence' },
    '245',
    [field('245', '14', 'a', 'The willow bed :', 'b', 'notes /', 'c', 'A. Reed.')],
  ],
  [
    'writes capital words',
    { step: 'change-case', tags: '245', codes: 'a', to: 'title' },
    '245',
    [field('245', '14', 'a', 'The Willow Bed :', 'b', 'notes /', 'c', 'A. Reed.')],
  ],
  [
    'takes the end mark away',
    { step: 'end-mark', tags: '245', mark: '' },
    '245',
    [field('245', '14', 'a', 'THE WILLOW BED :', 'b', 'notes /', 'c', 'A. Reed')],
  ],
  [
    'drops a subdivision',
    { step: 'drop-subdivision', text: 'juvenile literature' },
    '650',
    [eels[1]!, field('650', ' 0', 'a', 'Eels.')],
  ],
  [
    'renames a subdivision',
    { step: 'rename-subdivision', text: 'Handbooks', by: 'Manuals' },
    '650',
    [field('650', ' 0', 'a', 'Willows', 'x', 'Uses', 'v', 'Manuals.'), eels[2]!],
  ],
  [
    'maps codes',
    { step: 'map-codes', tags: '852', code: 'b', table: { SEDGE: 'MILL' } },
    '852',
    [field('852', '  ', 'b', 'MILL', 'p', '31204000517715')],
  ],
  [
    'builds a field',
    {
      step: 'build-field',
      tag: '599',
      indicators: '  ',
      parts: [
        { code: 'a', template: '{245$c} in {852$b}' },
        { code: 'b', template: '{999$a}' },
      ],
    },
    '599',
    [field('599', '  ', 'a', 'A. Reed. in SEDGE')],
  ],
])('a step %s', (_, step, tag, expected) => expect(only(tag, after(eels, step))).toEqual(expected));

test('fixed positions, order, incomplete headings, call numbers, fixes of a check', () => {
  const set = run(record('eng'), { step: 'set-position', tag: '008', from: 35, text: 'wel' }).record
    .fields[0]!;
  expect('value' in set && set.value.slice(33)).toBe('0 wel d');
  expect(
    run(record('eng'), { step: 'set-position', tag: 'LDR', from: 17, text: '7' }).record.leader[17],
  ).toBe('7');
  expect(after([eels[1]!, eels[0]!], { step: 'sort-fields' })).toEqual([eels[0], eels[1]]);
  expect(after([field('650', ' 0', 'x', 'Uses'), eels[1]!], { step: 'drop-incomplete-headings' })).toEqual([
    eels[1],
  ]);
  expect(
    only(
      '852',
      after([field('082', '04', 'a', '746.41/20942'), field('100', '1 ', 'a', 'Reedman, A.'), eels[3]!], {
        step: 'call-number',
        scheme: 'dewey',
      }),
    ),
  ).toEqual([field('852', '1 ', 'b', 'SEDGE', 'h', '746.41', 'i', 'REE', 'p', '31204000517715')]);
  expect(
    only(
      '020',
      after([field('020', '  ', 'a', '0306406152 (pbk.)')], { step: 'apply-fixes', rule: 'isbn-qualifier' }),
    ),
  ).toEqual([field('020', '  ', 'a', '0306406152', 'q', 'pbk.')]);
});

test.each<[string, Step['when'], boolean]>([
  ['has', { has: '852$b' }, true],
  ['has with a condition', { has: '852$b{$p=\\31204000517715}' }, true],
  ['lacks', { lacks: '852$b' }, false],
  ['language', { languages: ['fre'] }, false],
  ['type of record', { types: ['a', 't'] }, true],
  ['another supplier', { suppliers: ['Reedling'] }, false],
])('a step only where: %s', (_, when, runs) => {
  const { touched } = run(record('eng', ...eels), { step: 'delete-field', tags: '245', which: 'all', when });
  expect(touched).toEqual(runs ? [0] : []);
});

test.each([
  ['German nouns keep theirs', 'ger', 'Die Weide'],
  ['an acronym stays', 'eng', 'The BBC book'],
  ['no article, no change', 'eng', 'Willow Bed'],
])('%s', (_, language, title) => {
  const before = record(language, field('245', '10', 'a', title));
  expect(runRecipe(before, house)).toEqual({ record: before, touched: [] });
});
test('running the built-in recipe twice is running it once', () => {
  fc.assert(
    fc.property(anyRecord, (r) => {
      const once = runRecipe(r, house).record;
      expect(runRecipe(once, house).touched).toEqual([]);
    }),
  );
});

const ANY_STEP: readonly Step[] = [
  { step: 'add-field', field: note, ifAbsent: false },
  { step: 'delete-field', tags: '...', which: 'first' },
  { step: 'copy-field', tags: '...', to: '599' },
  { step: 'move-field', tags: '2..', to: '599' },
  { step: 'set-subfield', tags: '...', code: 'a', value: 'x', ifAbsent: false },
  { step: 'delete-subfield', tags: '...', code: 'a', which: 'last' },
  { step: 'copy-subfield', tags: '...', code: 'a', toCode: 'b' },
  { step: 'move-subfield', tags: '...', code: 'a', toCode: 'b' },
  { step: 'set-indicator', tags: '...', which: 2, value: '9' },
  { step: 'replace-text', tags: '...', codes: '', match: { find: '(.)', expression: true }, by: '$1$1' },
  { step: 'change-case', tags: '...', codes: '', to: 'sentence' },
  { step: 'end-mark', tags: '...', mark: '.' },
  { step: 'rename-subdivision', text: 'x', by: 'y' },
  { step: 'drop-incomplete-headings' },
  { step: 'sort-fields' },
  { step: 'set-position', tag: '008', from: 3, text: 'zz' },
  { step: 'map-codes', tags: '...', code: 'a', table: { constructor: 'x' } },
  { step: 'call-number', scheme: 'dewey' },
  { step: 'build-field', tag: '599', indicators: '  ', parts: [{ code: 'a', template: '{...$a}' }] },
  { step: 'apply-fixes', rule: 'spaces' },
];
test('any steps on any record: nothing throws, and the change set inverted gives the record back', () => {
  fc.assert(
    fc.property(anyRecord, fc.array(fc.constantFrom(...ANY_STEP), { maxLength: 6 }), (before, steps) => {
      const { record: made, touched } = run(before, ...steps);
      expect(touched.length > 0 || made === before).toBe(true);
      const change = update('record', { id: 1, version: 3, value: before }, made);
      expect(invert([change])[0]).toMatchObject({ before: { ...made }, after: { ...before } });
    }),
    { numRuns: 150 },
  );
});
test('every step reads itself as a sentence', () => {
  for (const step of [...ANY_STEP, ...house.steps])
    expect(stepSentence({ ...step, when: { has: '245$a', languages: ['wel'] } }, DEFAULT_HOUSE)).toMatch(
      /^[A-Z].{8,}, where the record has 245\$a and the language is Welsh$/,
    );
});

describe('what cannot run is told beforehand', () => {
  const replace = (find: string): Step => ({
    step: 'replace-text',
    tags: '245',
    codes: 'a',
    match: { find, expression: true },
    by: '',
  });
  test.each<[string, Step, RegExp]>([
    ['a look ahead', replace('a(?=b)'), /looks ahead/],
    ['one that is too large', replace('.{0,900}.{0,900}c'), /too large/],
    ['a reference back', replace('(a)\\1'), /refers back/],
    ['a broken one', replace('(a'), /not well formed/],
    ['nothing to look for', replace(''), /Type the text to find/],
    ['no tags', { step: 'end-mark', tags: '24', mark: '.' }, /names no tags/],
    ['no check', { step: 'apply-fixes', rule: 'nothing' }, /no check/],
    ['no address', { step: 'sort-fields', when: { has: '24$' } }, /not a field address/],
  ])('%s', (_, step, said) => {
    expect(recipeProblems({ id: 'x', name: 'X', steps: [step] })).toMatchObject([
      { step: 0, message: expect.stringMatching(said) as string },
    ]);
  });
  test('sound expressions are not refused', () => {
    for (const find of ['^(\\d+) p\\.?$', '(?:vol|v)\\. ?\\d+', '[A-Z]+ .*', '(ab|cd)+x'])
      expect(recipeProblems({ id: 'x', name: 'X', steps: [replace(find)] })).toEqual([]);
  });
});

describe('a recipe by doing', () => {
  const between = (before: MarcRecord, made: MarcRecord): EditDone => ({
    transaction: transactionBetween(before, made),
  });
  const stepsOf = (before: MarcRecord, ...versions: MarcRecord[]) =>
    stepsFromEdit(
      before,
      versions.map((v, i) => between(versions[i - 1] ?? before, v)),
    );
  const sorted = (r: MarcRecord) =>
    r.fields
      .map((f) =>
        'value' in f ? f : { ...f, subfields: [...f.subfields].sort((a, b) => (a.code < b.code ? -1 : 1)) },
      )
      .sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
  test('each difference becomes a step, and the steps do it again', () => {
    const before = record('eng', ...eels, field('856', '40', 'u', 'http://reed.example/1'));
    const made = record(
      'wel',
      field('245', '14', 'a', 'THE WILLOW BED :', 'b', 'notes /', 'c', 'A. Reed.'),
      eels[1]!,
      field('650', ' 0', 'a', 'Eels.'),
      field('852', '1 ', 'b', 'SEDGE', 'c', 'OPEN', 'p', '31204000517715'),
      field('590', '  ', 'a', 'Course 4.'),
    );
    const steps = stepsOf(before, made);
    expect(steps.map((s) => s.step).sort()).toEqual(
      [
        'add-field',
        'delete-field',
        'drop-subdivision',
        'set-indicator',
        'set-position',
        'set-subfield',
      ].sort(),
    );
    expect(sorted(run(before, ...steps).record)).toEqual(sorted(made));
  });
  test('nothing done is no step', () =>
    expect(stepsOf(record('eng', ...eels), record('eng', ...eels))).toEqual([]));
  test('what was done and undone in another go is no step', () => {
    const start = record('eng', ...eels);
    expect(stepsOf(start, record('eng', ...eels.slice(1)), start)).toEqual([]);
  });
  test('a field that is given another tag is moved, not deleted and made', () => {
    const before = record('eng', ...eels, field('440', ' 0', 'a', 'Reedling papers'));
    const made = record('eng', ...eels, field('490', '1 ', 'a', 'Reedling papers'));
    const steps = stepsOf(before, made);
    expect(steps).toEqual([
      { step: 'move-field', tags: '440', to: '490' },
      { step: 'set-indicator', tags: '490', which: 1, from: ' ', value: '1' },
      { step: 'set-indicator', tags: '490', which: 2, from: '0', value: ' ' },
    ]);
    expect(sorted(run(before, ...steps).record)).toEqual(sorted(made));
  });
  test('where only one of several is given another tag, the others stay', () => {
    const before = record('eng', ...eels);
    const made = record('eng', eels[0]!, { ...eels[1]!, tag: '653' }, eels[2]!, eels[3]!);
    const steps = stepsOf(before, made);
    expect(steps.map((s) => s.step)).toEqual(['delete-field', 'add-field']);
    expect(sorted(run(before, ...steps).record)).toEqual(sorted(made));
  });
  test('a field is followed though another of its tag goes and it is moved', () => {
    const before = record('eng', ...eels);
    const changed = field('650', ' 0', 'a', 'Osiers', 'x', 'Uses', 'v', 'Handbooks.');
    const steps = stepsFromEdit(before, [
      { transaction: [{ step: 'move', from: 2, to: 3 }] },
      { transaction: [{ step: 'fields', at: 2, removed: [eels[2]!], inserted: [] }] },
      { transaction: [{ step: 'fields', at: 2, removed: [eels[1]!], inserted: [changed] }] },
    ]);
    expect(steps).toEqual([
      { step: 'replace-text', tags: '650', codes: 'a', match: { find: 'Willows' }, by: 'Osiers' },
      { step: 'delete-field', tags: '650', which: 'all', match: { find: 'Eels' } },
    ]);
  });
  test('the safe fix of a check is that check’s fixes, at its place in the order', () => {
    const before = record('eng', ...eels);
    const fixed = record('eng', field('245', '14', 'a', 'The willow bed :'), ...eels.slice(1));
    const later = record('eng', field('245', '04', 'a', 'The willow bed :'), ...eels.slice(1));
    expect(
      stepsFromEdit(before, [
        { ...between(before, fixed), meant: { fixOf: 'title-case' } },
        between(fixed, later),
        { ...between(later, later), meant: { fixOf: 'title-case' } },
      ]),
    ).toEqual([
      { step: 'apply-fixes', rule: 'title-case' },
      { step: 'set-indicator', tags: '245', which: 1, from: '1', value: '0' },
    ]);
  });
  test.each([
    ['capitals told apart', { find: 'colour', by: 'color', matchCase: true }, 'Colour and color'],
    ['capitals or not', { find: 'colour', by: 'color', matchCase: false }, 'color and color'],
    ['with signs of an expression', { find: 'r.', by: 'r', matchCase: false }, 'Colour and colour'],
  ])('a text that was replaced wherever it stood is replaced so elsewhere: %s', (_, meant, title) => {
    const before = record(
      'eng',
      field('245', '00', 'a', 'Colour and colour'),
      field('500', '  ', 'a', 'A colour r.'),
    );
    const { transaction } = replaceText(before, meant);
    const steps = stepsFromEdit(before, [{ transaction, meant }]);
    expect(steps.every((s) => s.step === 'replace-text' && s.codes === '')).toBe(true);
    expect(run(before, ...steps).record).toEqual(applyTransaction(before, transaction));
    expect(run(before, ...steps).record.fields[1]).toEqual(field('245', '00', 'a', title));
    const other = record('eng', field('500', '  ', 'a', `Plates: ${meant.find}`));
    expect(run(other, ...steps).record.fields[1]).toEqual(field('500', '  ', 'a', `Plates: ${meant.by}`));
  });
  test('what a step cannot say as it was meant is said as it was done', () => {
    const before = record('eng', field('500', '  ', 'a', 'Ed. by A.'));
    const meant = { find: 'Ed.', by: 'Edited', matchCase: true };
    expect(stepsFromEdit(before, [{ transaction: replaceText(before, meant).transaction, meant }])).toEqual([
      { step: 'replace-text', tags: '500', codes: 'a', match: { find: 'Ed. by A.' }, by: 'Edited by A.' },
    ]);
  });
  test('what the leader says of its own layout is no step', () => {
    const start = record('eng', ...eels);
    const other = { ...start, leader: '00999cam a2200999 a 4500' };
    expect(stepsOf(start, other)).toEqual([
      { step: 'set-position', tag: 'LDR', from: 5, text: 'c' },
      { step: 'set-position', tag: 'LDR', from: 18, text: 'a' },
    ]);
  });
  test('what was done to another record is told', () =>
    expect(() =>
      stepsFromEdit(record('eng', ...eels), [
        { transaction: [{ step: 'fields', at: 1, removed: [eels[3]!], inserted: [] }] },
      ]),
    ).toThrow(RangeError));
  test('of any record made of another, the steps leave what was done alike alone', () =>
    fc.assert(
      fc.property(anyRecord, anyRecord, (a, b) => {
        expect(stepsOf(a, b, a)).toEqual([]);
        const [there] = [stepsOf(a, b)];
        expect(stepsOf(a, b, a, b)).toEqual(there);
      }),
    ));
});

test('a recipe written to a file is the same when read; other files are told for what they are', () => {
  const recipe = { id: 'r1', name: 'Reedling', steps: ANY_STEP };
  expect(readRecipe(recipeFile(recipe), 'r1')).toEqual(recipe);
  const old: Recipe = { ...recipe, steps: [{ step: 'apply-fixes', rule: 'isbn-form' }] };
  expect(readRecipe(recipeFile(old), 'r1')).toMatchObject({
    steps: [{ step: 'apply-fixes', rule: 'isbn-invalid' }],
  });
  expect(readRecipe('hello', 'x')).toMatch(/not JSON/);
  expect(readRecipe('{"a":1}', 'x')).toMatch(/not a recipe/);
  expect(
    readRecipe(recipeFile({ ...recipe, steps: [{ step: 'end-mark', tags: '2', mark: '' }] }), 'x'),
  ).toMatch(/^Step 1: /);
});

describe('steps as forms', () => {
  const forms = STEP_KINDS.map((k) => [k.step, k] as const);
  test('every kind of step is offered under a name of its own', () =>
    expect(new Set(forms.map(([, f]) => f.name)).size).toBe(24));
  test.each(forms)(
    '%s: what it begins with is what it asks for, and reads itself',
    (kind, { first, parts }) => {
      expect(first.step).toBe(kind);
      const asked = parts.filter((p) => !p.optional).map((p) => p.key);
      expect(Object.keys(first).filter((k) => k !== 'step')).toEqual(asked);
      expect(stepSentence(first, DEFAULT_HOUSE)).not.toMatch(/undefined|null|NaN/);
    },
  );
  test.each<[Step, RegExp]>([
    [firstOf('drop-subdivision'), /Type the text/],
    [firstOf('add-field'), /no text/],
    [firstOf('apply-fixes'), /no check/],
    [{ step: 'copy-field', tags: '100', to: '7' }, /“7” is not a tag/],
  ])('%o is not finished', (step, said) => expect([...stepProblems(step)].join()).toMatch(said));
});
