import fc from 'fast-check';
import { field, type Field, type MarcRecord } from '../marc';
import {
  callNumberRuleProblems,
  callNumberText,
  cutterNumber,
  FIRST_RULE,
  isOfWork,
  markLetters,
  markSource,
  offerCallNumbers,
  type CallNumberRule,
} from '.';

const HOUSE = { classDecimals: 2, cutterLetters: 3, callNumbers: [] as CallNumberRule[] };
const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const fixed = (form: string, biography = ' ') => ({
  tag: '008',
  value: `261128s1998    enk           000 ${form}${biography}eng d`.padEnd(40).slice(0, 40),
});
const title = field('245', '14', 'a', 'The willow bed');

describe('the general style', () => {
  const both = record(
    field('050', '00', 'a', 'TT879.B3', 'b', 'R44 1990'),
    field('060', '00', 'a', 'WB 100', 'b', 'B434p 1990'),
    field('082', '04', 'a', '746.41/20942'),
    field('100', '1 ', 'a', 'Ó Rinn-Læssøe, Amos,'),
    title,
  );
  test('each scheme that the record has a class in, Dewey cut, LC and NLM whole, and how', () =>
    expect(offerCallNumbers(both, HOUSE).map((o) => [o.scheme, callNumberText(o), o.from])).toEqual([
      ['dewey', '746.41 ORI', 'from 082 746.41/20942 → 746.41, two decimals; author mark ORI from 100'],
      ['lc', 'TT879.B3 R44 1990', 'from 050 as it stands'],
      ['nlm', 'WB 100 B434p 1990', 'from 060 as it stands'],
    ]));
  test('fields of our own come before those of others', () => {
    const ours = record(
      field('082', '04', 'a', '746.4'),
      field('092', '  ', 'a', '746.9'),
      field('096', '  ', 'a', 'WA 1'),
      field('099', ' 9', 'a', 'MAP', 'a', '12'),
      title,
    );
    expect(offerCallNumbers(ours, HOUSE).map(callNumberText)).toEqual(['746.9 WIL', 'WA 1', 'MAP 12']);
  });
  test('a class cut at its prime mark, then at the limit; no decimals; no class at all', () => {
    const of = (a: string, classDecimals: number) =>
      offerCallNumbers(record(field('082', '04', 'a', a), title), { ...HOUSE, classDecimals })[0]?.class;
    expect([of('746.4/12', 2), of('746.412', 2), of('746.412', 0), of('[Fic]', 2)]).toEqual([
      '746.4',
      '746.41',
      '746',
      undefined,
    ]);
  });
});

describe('author marks', () => {
  const from = (...fields: Field[]) => markSource(record(...fields), 'author');
  test.each<[string, Field[], string, string]>([
    ['a surname', [field('100', '1 ', 'a', 'Holt, Ada,')], 'HOLT', '100'],
    ['a compound surname', [field('100', '1 ', 'a', 'Van der Berg, Jan')], 'VANDERBERG', '100'],
    ['a particle that follows the name', [field('100', '1 ', 'a', 'Berg, Jan van der')], 'BERG', '100'],
    ['an Arabic article', [field('100', '1 ', 'a', 'al-Hakim, Tawfiq')], 'HAKIM', '100'],
    ['an apostrophe', [field('100', '1 ', 'a', 'O’Brien, Flann')], 'OBRIEN', '100'],
    ['a forename', [field('100', '0 ', 'a', 'Bede,', 'c', 'the Venerable')], 'BEDE', '100'],
    ['a body', [field('110', '2 ', 'a', 'Wickmere Institute.')], 'WICKMEREINSTITUTE', '110'],
    ['a uniform title', [field('130', '4 ', 'a', 'The Book of eels.'), title], 'BOOKOFEELS', '130'],
    ['a title behind its article', [title], 'WILLOWBED', '245'],
    ['a title that begins with a number', [field('245', '10', 'a', '99 eels')], '99EELS', '245'],
    [
      'another script, with a partner in Latin letters',
      [
        field('100', '1 ', '6', '880-01', 'a', 'Плетнёв, А.'),
        field('880', '1 ', '6', '100-01', 'a', 'Pletnëv, A.'),
        title,
      ],
      'PLETNEV',
      '880',
    ],
    ['another script without one: by hand', [field('100', '1 ', 'a', 'Плетнёв, А.'), title], '', '100'],
  ])('%s', (_what, fields, letters, tag) => {
    const source = from(...fields);
    expect([markLetters(source.word, false), source.from]).toEqual([letters, tag]);
  });
  test.each([
    ['McDonald', 'MACDONALD', 'MCDONALD'],
    ["M'Gregor", 'MACGREGOR', 'MGREGOR'],
    ['MacDonald', 'MACDONALD', 'MACDONALD'],
    ['Mcintosh', 'MACINTOSH', 'MCINTOSH'],
    ['Michel', 'MICHEL', 'MICHEL'],
  ])('%s with Mc as Mac or as written', (name, asMac, asWritten) =>
    expect([markLetters(name, true), markLetters(name, false)]).toEqual([asMac, asWritten]),
  );
});

// The examples of the LC Cutter Table (Classification and Shelflisting Manual, G 63), from memory.
test.each([
  ...['IBM I26', 'Idaho I33', 'Inman I56', 'Ipswich I67', 'Sadron S23', 'Scanlon S29', 'Schreiber S37'],
  ...['Stinson S75', 'Suryani S87', 'Symposium S96', 'Qadduri Q23', 'Quade Q33', 'Queiroz Q45', 'Quinn Q56'],
  ...[
    'Quorum Q67',
    'Qutub Q88',
    'Campbell C36',
    'Ceccaldi C43',
    'Chertok C48',
    'Clark C58',
    'Cobblestone C63',
  ],
  ...['Cryer C79', 'Cuellar C84', 'Cymbal C96'],
])('Cutter number %s', (line) => {
  const [name = '', number] = line.split(' ');
  expect(cutterNumber(name, 2)).toBe(number);
});
test('a Cutter number has a letter and at most so many digits, and more digits begin with fewer', () =>
  fc.assert(
    fc.property(
      fc.stringMatching(/^[A-Za-zÀ-ž' -]{0,12}$/),
      fc.integer({ min: 1, max: 5 }),
      (word, digits) => {
        const number = cutterNumber(word, digits);
        expect(number).toMatch(new RegExp(`^([A-Z][2-9]{1,${digits}})?$`));
        expect(cutterNumber(word, digits + 1).startsWith(number)).toBe(true);
      },
    ),
  ));

describe('rules by place, type and work', () => {
  const rule = (parts: Partial<CallNumberRule>): CallNumberRule => ({ ...FIRST_RULE, ...parts });
  const house = {
    ...HOUSE,
    callNumbers: [
      rule({ name: 'Large print', types: ['LP'], prefix: 'LP', decimals: 0, markLength: 4 }),
      rule({
        name: 'Junior fiction',
        locations: ['JUN'],
        works: 'fiction',
        hasClass: false,
        prefix: 'JF',
        isMcAsMac: true,
      }),
      rule({ name: 'Fiction', works: 'fiction', hasClass: false, prefix: 'F' }),
      rule({ name: 'Lives', works: 'biography', hasClass: false, prefix: 'B', markedBy: 'person' }),
      rule({
        name: 'Store',
        branches: ['MR'],
        locations: ['STO'],
        mark: 'cutter',
        markLength: 2,
        hasYear: true,
      }),
    ],
  };
  const novel = record(
    fixed('1'),
    field('082', '04', 'a', '823.914'),
    field('100', '1 ', 'a', 'McAdam, Ian'),
    title,
  );
  const life = record(
    fixed('0', 'b'),
    field('082', '04', 'a', '941.08'),
    field('100', '1 ', 'a', 'Holt, Ada'),
    title,
    field('600', '10', 'a', 'Reedman, Amos,', 't', 'Tools.'),
    field('600', '10', 'a', 'Quill, Bess,', 'd', '1871-1940.'),
  );
  const plain = record(
    fixed('0'),
    field('082', '04', 'a', '746.41'),
    field('100', '1 ', 'a', 'Campbell, Jo'),
    title,
  );
  test.each<[string, MarcRecord, object, string, string]>([
    ['a novel', novel, {}, 'F MCA', 'Fiction'],
    ['a novel for the young', novel, { branch: 'MR', location: 'JUN' }, 'JF MAC', 'Junior fiction'],
    ['a novel in large print', novel, { type: 'LP' }, 'LP 823 MCAD', 'Large print'],
    ['a life, by whom it is about', life, { branch: 'MR', location: 'OPEN' }, 'B QUI', 'Lives'],
    ['a book of the store', plain, { branch: 'MR', location: 'STO' }, '746.41 C36 1998', 'Store'],
    ['the same elsewhere', plain, { branch: 'MR', location: 'OPEN' }, '746.41 CAM', ''],
    ['the same where the place is not known', plain, {}, '746.41 CAM', ''],
  ])('%s', (_what, of, place, text, name) => {
    const [offer] = offerCallNumbers(of, house, place);
    expect([callNumberText(offer!), offer!.rule]).toEqual([text, name]);
  });
  test('how it was made is told, and the general style is offered too, once', () => {
    const offers = offerCallNumbers(novel, house);
    expect(offers.map((o) => [callNumberText(o), o.from])).toEqual([
      ['F MCA', 'prefix F instead of a class; author mark MCA from 100'],
      ['823.91 MCA', 'from 082 823.914 → 823.91, two decimals; author mark MCA from 100'],
    ]);
    expect(offerCallNumbers(plain, house)).toHaveLength(1);
  });
  test('fiction and lives are told by 008, or by the words of 082', () => {
    expect([isOfWork(novel, 'fiction'), isOfWork(plain, 'fiction'), isOfWork(life, 'biography')]).toEqual([
      true,
      false,
      true,
    ]);
    for (const [words, works] of [
      ['[Fic]', 'fiction'],
      ['[E]', 'fiction'],
      ['[B]', 'biography'],
      ['B', 'biography'],
      ['920', 'biography'],
      ['92', 'biography'],
    ] as const)
      expect(isOfWork(record(fixed('0'), field('082', '04', 'a', words)), works)).toBe(true);
    expect(isOfWork(record(fixed('0'), field('082', '04', 'a', '929.2')), 'biography')).toBe(false);
    // A map has other things at these places of 008.
    const map = { ...record(fixed('1')), leader: '00000nem a2200000 i 4500' };
    expect(isOfWork(map, 'fiction')).toBe(false);
  });
  test('a rule that makes no sense is told at its part', () => {
    const wrong = callNumberRuleProblems(rule({ hasClass: false, mark: 'none' }));
    expect(wrong.map((p) => p.field)).toEqual(['name', 'prefix', 'mark']);
    expect(callNumberRuleProblems(rule({ name: 'x' }))).toEqual([]);
  });
});
