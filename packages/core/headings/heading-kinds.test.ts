import fc from 'fast-check';
import type { Versioned } from '../changes';
import { field, fieldText, type DataField, type MarcRecord } from '../marc';
import {
  carriedAlong,
  changesAlong,
  formsOfMerge,
  headingFrom,
  headingIdentity,
  headingsIn,
  headingText,
  identityOf,
  incomingAuthority,
  keptForm,
  kindOfTracing,
  newAuthority,
  seeFroms,
  unnamedHeading,
  withHeadingNumbers,
  WrongForm,
  type Heading,
} from '.';
import { asNewForm } from './new-form';

const kindsIn = (f: DataField) => headingsIn(f).map((h) => [h.kind, h.key]);
const made = (f: DataField): Heading => headingFrom(headingsIn(f).at(-1)!);
const held = (id: number, value: Heading): Versioned<Heading, 'heading'> => ({ id, version: 1, value });
const established = ({ marc, ...rest }: Heading): Heading => ({
  ...rest,
  marc: { ...marc, fields: [...marc.fields, field('670', '  ', 'a', 'His Sluices, 1931')] },
});

// Tags and their subfields: MARC 21 Format for Bibliographic Data, X00 to X30 and 648 to 655.
test.each<[DataField, [string, string][]]>([
  [field('130', '0 ', 'a', 'Song of reeds.', 'l', 'English.'), [['title', 'SONG OF REEDS$lENGLISH']]],
  [field('630', '00', 'a', 'Song of reeds', 'x', 'Criticism.'), [['title', 'SONG OF REEDS']]],
  [field('830', ' 0', 'a', 'Fen papers ;', 'v', '12.'), [['title', 'FEN PAPERS']]],
  [
    field('700', '12', 'a', 'Reedman, Amos,', 'd', '1880-1950.', 't', 'Sluices.', 'l', 'French.'),
    [
      ['personal', 'REEDMAN, AMOS$d1880 1950'],
      ['name-title', 'REEDMAN, AMOS$d1880 1950$tSLUICES$lFRENCH'],
    ],
  ],
  [
    field('810', '2 ', 'a', 'Wickmere Institute.', 't', 'Papers ;', 'v', '3.'),
    [
      ['corporate', 'WICKMERE INSTITUTE'],
      ['name-title', 'WICKMERE INSTITUTE$tPAPERS'],
    ],
  ],
  [field('648', ' 7', 'a', '1900-1999', '2', 'fast'), [['period', '1900 1999']]],
  [field('655', ' 7', 'a', 'Diaries.', '2', 'lcgft'), [['genre', 'DIARIES']]],
  [field('246', '3 ', 'a', 'Sluices'), []],
  [field('440', ' 0', 'a', 'Fen papers'), []],
  [field('653', '  ', 'a', 'sluices'), []],
])('%j has its headings', (f, wanted) => expect(kindsIn(f)).toEqual(wanted));

const word = fc.constantFrom(
  'Reedman, Amos',
  'Wick',
  'Tools, etc.',
  'Fen-papers',
  '1880-',
  'Harrow (Town)',
  'Ünder',
);
const fields: fc.Arbitrary<DataField> = fc
  .record({
    tag: fc.constantFrom(
      ...['100', '110', '111', '130', '600', '610', '611', '630', '648', '650', '651', '655'],
      ...['700', '710', '711', '730', '800', '810', '811', '830'],
    ),
    ind1: fc.constantFrom(' ', '0', '1', '2', '4'),
    ind2: fc.constantFrom(' ', '0', '1', '2', '4', '7'),
    rest: fc.array(fc.tuple(fc.constantFrom(...'bcdefgijklmnopqrstvxyz0269'), word), { maxLength: 6 }),
    a: word,
    end: fc.constantFrom('', '.', ',', ' ;'),
  })
  .map(({ tag, ind1, ind2, rest, a, end }) => ({
    ...{ tag, ind1, ind2 },
    subfields: [['a', a] as const, ...rest].map(([code, value]) => ({ code, value: value + end })),
  }));

test('the authority record made for a heading is known by what the field is known by', () => {
  fc.assert(
    fc.property(fields, (f) => {
      for (const use of headingsIn(f)) {
        const heading = headingFrom(use);
        expect(headingIdentity(identityOf(heading))).toBe(headingIdentity(use));
        expect(kindOfTracing(keptForm(heading))).toBe(use.kind);
        // And it is one that can come in a file.
        expect(incomingAuthority(heading.marc).problem).toBeNull();
      }
    }),
    { numRuns: 1500 },
  );
});

test.each([
  ['Reedman, Amos,', 'Reedman, Amos. Sluices'],
  ['Reedman, A.', 'Reedman, A. Sluices'],
  ['Reedman, Amos, 1946-', 'Reedman, Amos, 1946- Sluices'],
])('between %s and its title stands what belongs there', (name, text) => {
  const f = field('700', '1 ', 'a', name, 'e', 'author.', 't', 'Sluices.');
  expect(headingText(made(f))).toBe(text);
});

test('a title has the count of what filing passes over in the second indicator, as authority records do', () => {
  expect(fieldText(keptForm(made(field('730', '4 ', 'a', 'The reeds.'))))).toMatch(/^130 ?[ #]4/);
  expect(keptForm(made(field('830', ' 2', 'a', 'A series ;'))).ind2).toBe('2');
});

describe('a heading made by hand', () => {
  const typed = (kind: Parameters<typeof unnamedHeading>[0], ...line: [string, string][]) =>
    asNewForm(
      unnamedHeading(kind, 'naf'),
      line.map(([code, value]) => ({ code, value })),
    );
  test('is a name-title where a name is typed with its title', () => {
    const form = typed('personal', ['a', 'Reedman, Amos,'], ['d', '1880-1950.'], ['t', 'Sluices']);
    expect([form.tag, kindOfTracing(form)]).toEqual(['100', 'name-title']);
    const heading = newAuthority({
      ...{
        kind: 'name-title',
        vocabulary: 'naf',
        form,
        seeFroms: [],
        source: 'Sluices, 1931',
        on: '2026-11-30',
      },
    });
    expect(identityOf(heading).key).toBe('REEDMAN, AMOS$d1880 1950$tSLUICES');
  });
  test('keeps its title, and a name gets none', () => {
    const nameTitle = made(field('700', '1 ', 'a', 'Reedman, A.', 't', 'Sluices'));
    expect(() => asNewForm(nameTitle, [{ code: 'a', value: 'Reedman, Amos' }])).toThrow(WrongForm);
    const name = made(field('700', '1 ', 'a', 'Reedman, A.'));
    expect(() =>
      asNewForm(name, [
        { code: 'a', value: 'Reedman, A.' },
        { code: 't', value: 'Sluices' },
      ]),
    ).toThrow(/\$t is no part/);
  });
});

test('the number in $0 is that of name and title together, never of the name alone', () => {
  const record: MarcRecord = {
    leader: '',
    fields: [field('700', '12', 'a', 'Reedman, A.', 't', 'Sluices.'), field('700', '1 ', 'a', 'Reedman, A.')],
  };
  const numbered = withHeadingNumbers(record, (use) => (use.kind === 'personal' ? '(Wick)1' : null));
  expect(numbered.fields.map(fieldText)).toEqual([
    fieldText(record.fields[0]!),
    `${fieldText(record.fields[1]!)}$0(Wick)1`,
  ]);
});

describe('headings that begin with one that is merged', () => {
  const [lost, kept] = [
    made(field('100', '1 ', 'a', 'Reedman, A.')),
    made(field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950')),
  ];
  const forms = formsOfMerge({ kept: held(1, kept), lost: [held(2, lost)] });
  const titled = (...more: string[]) => made(field('700', '1 ', 'a', 'Reedman, A.', ...more));
  const along = (...headings: Heading[]) =>
    carriedAlong(
      forms,
      headings.map((h, i) => held(10 + i, h)),
    );

  test('get the kept form; the form itself, other names and other vocabularies do not', () => {
    const other = made(field('700', '1 ', 'a', 'Reedman, A. B.', 't', 'Sluices.'));
    const abroad = made(field('600', '17', 'a', 'Reedman, A.', 't', 'Sluices.', '2', 'fast'));
    const found = along(lost, titled('t', 'Sluices.'), other, abroad);
    expect(found.map((f) => [f.held.id, fieldText(f.form)])).toEqual([
      [11, fieldText(field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950.', 't', 'Sluices'))],
    ]);
  });

  test('a subject with subdivisions follows, a longer word does not', () => {
    const [rail, trains] = ['Railways', 'Rail transport'].map((a) => made(field('650', ' 0', 'a', a)));
    const asked = formsOfMerge({ kept: held(1, trains!), lost: [held(2, rail!)] });
    const [england, works] = [
      made(field('650', ' 0', 'a', 'Railways', 'z', 'England.')),
      made(field('650', ' 0', 'a', 'Railways and works.')),
    ];
    expect(carriedAlong(asked, [held(3, england), held(4, works)]).map((c) => c.then.key)).toEqual([
      'RAIL TRANSPORT$zENGLAND',
    ]);
  });

  test('one that nobody established just changes; an established one keeps its old form as a see-from', () => {
    const plain = titled('t', 'Sluices.');
    const [change] = changesAlong(along(plain), new Map());
    expect(seeFroms(change!.after!)).toEqual([]);
    const [sourced] = changesAlong(along(established(plain)), new Map());
    expect(seeFroms(sourced!.after!).map(fieldText)).toEqual([
      fieldText(field('400', '1 ', 'w', 'nne', 'a', 'Reedman, A.', 't', 'Sluices')),
    ]);
    expect(sourced!.after!.marc.leader[5]).toBe('c');
  });

  test('one that comes to be a heading that is there is merged into it, and two that come to be one into one', () => {
    const there = made(field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950.', 't', 'Sluices.'));
    const into = changesAlong(
      along(titled('t', 'Sluices.')),
      new Map([[headingIdentity(identityOf(there)), held(5, there)]]),
    );
    expect(into.map((c) => [c.id, c.after?.mergedInto])).toEqual([
      [5, null],
      [10, 5],
    ]);
    const third = made(field('100', '1 ', 'a', 'Reedman, Am.'));
    const asked = formsOfMerge({ kept: held(1, kept), lost: [held(2, lost), held(3, third)] });
    const two = [titled('t', 'Sluices.'), made(field('700', '1 ', 'a', 'Reedman, Am.', 't', 'Sluices.'))];
    const one = changesAlong(
      carriedAlong(
        asked,
        two.map((h, i) => held(10 + i, h)),
      ),
      new Map(),
    );
    expect(one.map((c) => [c.id, c.after?.mergedInto])).toEqual([
      [10, null],
      [11, 10],
    ]);
    expect(identityOf(one[0]!.after!).key).toBe('REEDMAN, AMOS$d1880 1950$tSLUICES');
  });
});
