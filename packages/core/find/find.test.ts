import fc from 'fast-check';
import { shelfPlaceOf } from '../callnumbers';
import { field, type MarcRecord } from '../marc';
import { editDistance } from '../text';
import {
  headingPlanOfTyped,
  isFound,
  isHeadingFound,
  isPlan,
  isQueryText,
  meantWord,
  narrowedQuery,
  oneLetterOff,
  orderOfText,
  planOfText,
  planOfTyped,
  type Findable,
  type FindableHeading,
  type FindPlan,
} from '.';

const marc: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '008', value: '240101s1998    enka   g      000 0 eng d' },
    field('020', '  ', 'a', '0306406152'),
    field('100', '1 ', 'a', 'Fenn, Ada,', 'e', 'author.'),
    field('245', '14', 'a', 'The eels of Osmere :', 'b', 'a river’s life /', 'c', 'Ada Fenn.'),
    field('520', '  ', 'a', 'Migration by night.'),
    field('650', ' 0', 'a', 'Eels', 'z', 'Brindle Moor.'),
  ],
};
const eels: Findable = {
  id: 77,
  marc,
  holdings: [
    { branch: 'MR', location: 'OPEN', call_number: '639.2 FEN', shelf_key: shelfPlaceOf('639.2 FEN') },
  ],
  copies: [
    {
      barcode: '31204000000019',
      status: 'available',
      type: 'book',
      fund: '',
      supplier: 'TP',
      acquired: '2024-03-05',
      loans: '9',
      last_loan: '2025-06-07',
      last_seen: '2025-11-20',
      local: 'Given by Élise\n12.5',
    },
    { barcode: '31204000000027', status: 'lost', type: 'book', fund: 'G', supplier: '', acquired: '' },
  ],
  findings: ['no-summary'],
  isSuppressed: false,
  headings: [5, 9],
  entries: { first: '2026-03-01T10:00:00.000Z', last: '2026-03-04T10:00:00.000Z', by: 'Nell Arkwright' },
  among: [{ of: 'pile', id: 4, name: 'To bind' }],
};
const plan = (text: string): FindPlan => {
  const made = planOfText(text);
  if (!isPlan(made)) throw new Error(made.problem);
  return made;
};

test.each([
  ['eels', true],
  ['eel', false],
  ['eel*', true],
  ['"eels night"', true],
  ['words = "night migration"', false],
  ['words = "migration by ni*"', true],
  ['title = "eels of osmere"', true],
  ['title = "^the eels"', true],
  ['title = "^eels"', false],
  ['dc.title all "OSMERE éels"', true],
  ['title any "newts eels"', true],
  ['title any "newts frogs"', false],
  ['title == "Eels of Osmere: a river\'s life"', true],
  ['title == "The Eels of Osmere, a river’s life"', true],
  ['title == "an eels of Osmere, a river’s life"', true],
  ['title == "eels"', false],
  ['author = "fenn ada"', true],
  ['subject = osmere', false],
  ['subject = eels and name = fenn', true],
  ['subject = eels not name = fenn', false],
  ['subject = newts or (title = eels and year = 1998)', true],
  ['title <> newts', true],
  ['isbn = 978-0-306-40615-7', true],
  ['isbn = 9780306406158 or record = 77', null],
  ['record = 77', true],
  ['rec.identifier = 78', false],
  ['year > 1997 and year < 1999', true],
  ['year within "1990 1997"', false],
  ['dc.date >= 1998', true],
  ['language = eng', true],
  ['language any "fre ger"', false],
  ['branch = MR and location = OPEN', true],
  ['branch all "MR SH"', false],
  ['callnumber = 639*', true],
  ['callnumber = "639.2 FEN"', true],
  ['callnumber = 639', false],
  ['status = lost and status = available', true],
  ['status <> missing', true],
  ['callnumber >= 639', true],
  ['callnumber > 639.2', false],
  ['callnumber <= 639', true],
  ['callnumber < 639', false],
  ['callnumber within "630 .. 639"', true],
  ['callnumber within "640 .. 650"', false],
  ['heading = 9', true],
  ['heading = 7', false],
  ['note = night', true],
  ['note = osmere', false],
  ['copyfield = "given by elise"', true],
  ['copyfield = given*', true],
  ['copyfield = 12.5', true],
  ['copyfield = elise', false],
  ['copyfield any "12.5 x"', true],
  ['series = osmere', false],
  ['added = 2026-03', true],
  ['changed > 2026-03-03', true],
  ['changed > 2026-03', false],
  ['rec.lastModificationDate within "2026-01 2026-03-04"', true],
  ['changedby = "nell arkwright"', true],
  ['changedby = nell', false],
  ['pile = 4', true],
  ['pile = "to BIND"', true],
  ['pile = bind or delivery = 4', false],
  ['eels sortBy year/sort.descending', true],
  ['acquired = 2024-03', true],
  ['acquired <= 2024', true],
  ['acquired > 2024', false],
  ['acquired < 2024-03-05', false],
  ['lastloan = 2025-06', true],
  ['last-loan < 2025', false],
  ['seen within "2025-11 2025-12"', true],
  ['loans = 9', true],
  ['loans < 10', true],
  // Of the other copy no loans are known: that is not none.
  ['loans = 0', false],
  ['loans > 9', false],
  ['copies = 2', true],
  ['copies >= 3', false],
  ['holdings = 1 and copies > 1', true],
  ['finding = no-summary', true],
  ['suppressed = no', true],
  ['brief = yes', false],
  ['cql.allRecords = 1', true],
  ['cql.allRecords = 1 not title = eels', false],
  ['> x = "info:srw/cql-context-set/1/dc-v1.1" x.title = eels', true],
  ['TITLE = EELS AND Year = 1998', true],
])('%s', (text, found) => {
  if (found === null) expect(isPlan(planOfText(text))).toBe(false);
  else expect(isFound(eels, plan(text))).toBe(found);
});

test.each([
  ['titel = eels', 16, /^There is no index “titel”\. There are words, title, name,/],
  ['title ~ eels', 19, /cannot be looked for by “~”/],
  ['title = ', 10, /character 9/],
  ['(title = eels', 10, /character/],
  ['title = "eels', 10, /character/],
  ['title > eels', 19, /cannot be looked for by “>”; there is =, adj, all, any and ==/],
  ['isbn any 9780306406157', 19, /cannot be looked for by “any”/],
  ['title =/stem eels', 20, /“\/stem” is not understood/],
  ['eels prox night', 37, /use adj/],
  ['eels and/x night', 46, /“\/x”/],
  ['title = "*"', 28, /at least one letter before \*/],
  ['title = e?ls', 28, /Only \* at the end/],
  ['title = *els', 28, /Only \* at the end/],
  ['title = "ee* osmere"', 28, /only the last word/],
  ['title all "^eels"', 31, /stands before a phrase/],
  ['title = "..."', 27, /nothing to look for/],
  ['title = ""', 27, /nothing to look for/],
  ['year = 19', 36, /no year of four digits/],
  ['acquired = March', 36, /date such as/],
  ['loans = often', 36, /no number/],
  ['loans any 1', 19, /=, <, <=, > and >=/],
  ['year within 1990', 36, /Type two of them/],
  ['isbn = 123', 36, /is no ISBN/],
  ['copies = many', 36, /is no number/],
  ['suppressed = perhaps', 36, /yes or no/],
  ['status = lo?t', 28, /without \*, \? and \^/],
  ['> q = "http://example.org/set" q.x = 1', 15, /context set/],
  ['eels sortBy colour', 80, /cannot be sorted by “colour”; there is title, name,/],
  ['eels sortBy title year', 80, /by one key/],
  ['eels sortBy title/missingFail', 80, /“\/missingFail”/],
  ['callnumber within "630"', 36, /Type two call numbers with \.\. between/],
  ['changed = yesterday', 36, /date such as/],
  ['changedby = ""', 27, /nothing to look for/],
  ['heading = eels', 36, /no number of a heading/],
  ['pile > 3', 19, /cannot be looked for by “>”/],
  [Array.from({ length: 101 }, () => 'eels').join(' or '), 12, /101 conditions/],
  [`title all "${'eel '.repeat(61)}"`, 12, /61 words/],
  [`${'('.repeat(30)}a or (b and c)${')'.repeat(30)}`, null, null],
  [
    Array.from({ length: 25 }, (_, i) => `(a${i} ${i % 2 ? 'or' : 'and'} `).join('') + 'z' + ')'.repeat(25),
    12,
    /20 deep/,
  ],
])('%s is told', (text, code, problem) => {
  const made = planOfText(text);
  if (code === null) return expect(isPlan(made)).toBe(true);
  if (isPlan(made)) throw new Error('It was understood.');
  expect([made.code, made.problem]).toEqual([code, expect.stringMatching(problem)]);
});

test.each([
  ['title = eels', true],
  ['"eels of osmere"', true],
  ['(eels or newts) and fens', false],
  ['(title = eels)', true],
  ['dc.nothing = eels', true],
  ['title any "eels newts"', true],
  ['E = mc2', false],
  ['eels and newts', false],
  ['the title of all eels', false],
  ['"eels" ""', true],
  ['""', false],
  ['650$a', false],
  ['9780306406157', false],
  ['746.41 REE', false],
])('%s: a query is %s', (text, is) => {
  expect(isQueryText(text)).toBe(is);
});

test('any text ends with a plan or with a sentence, and a plan can be read on any record', () => {
  const piece = fc.constantFrom(
    'title',
    'year',
    '=',
    '<',
    ' ',
    '"',
    '(',
    ')',
    'and',
    'or',
    'not',
    'eels',
    '*',
    '\\',
    '^',
    '1998',
    '/',
    '>',
    '.',
    'any',
    "';--",
    '\u0000',
    '😀',
  );
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.array(piece, { maxLength: 20 }).map((p) => p.join(' ')),
      ),
      (text) => {
        const made = planOfText(text);
        if (isPlan(made)) expect(typeof isFound(eels, made)).toBe('boolean');
        else expect(made.problem).toMatch(/\S/);
        expect(typeof isQueryText(text)).toBe('boolean');
      },
    ),
    { numRuns: 500 },
  );
});

test.each([
  ['eels', null],
  ['eels sortBy title', { by: 'title', descends: false }],
  ['eels sortBy dc.date/sort.descending', { by: 'year', descends: true }],
  ['eels sortBy callnumber/ascending', { by: 'callnumber', descends: false }],
  ['eels sortBy colour', null],
])('%s asks for the order %j', (text, order) => expect(orderOfText(text)).toEqual(order));

test('what is typed is words, each as the beginning of one, or a query', () => {
  expect(planOfTyped('')).toEqual({ type: 'everything' });
  expect(planOfTyped('a Eel')).toMatchObject({
    words: [
      { text: 'a', isBeginning: false },
      { text: 'eel', isBeginning: true },
    ],
  });
  expect(planOfTyped('title = eel')).toMatchObject({ column: 'title', words: [{ isBeginning: false }] });
  expect(planOfTyped('title > eel')).toMatchObject({ code: 19 });
});

test('every text one letter off is one edit away, and the nearest of the most frequent words is meant', () => {
  fc.assert(
    fc.property(fc.stringMatching(/^[a-z]{1,8}$/), (word) => {
      const near = oneLetterOff(word);
      expect(near.every((n) => editDistance(word, n) === 1)).toBe(true);
      // A letter left out, put in, replaced, or swapped.
      expect(near).toContain(`${word}s`);
      if (word.length > 1) expect(near).toContain(word.slice(1));
    }),
  );
  const known = [
    { word: 'willow', records: 40 },
    { word: 'willows', records: 90 },
    { word: 'pillow', records: 3 },
    { word: 'wall', records: 100 },
  ];
  expect(meantWord('wilow', known)).toBe('willow');
  expect(meantWord('wlilow', known)).toBe('willow');
  expect(meantWord('qillow', known)).toBe('willow');
  expect(meantWord('willo', known)).toBe('willow');
  expect(meantWord('wilows', known)).toBe('willows');
  expect(meantWord('wal', known)).toBe(null);
  expect(meantWord('eels', known)).toBe(null);
});

test.each([
  ['', 'year = "1998"'],
  ['eels a night', 'words all "eels* a night*" and year = "1998"'],
  ['title = eels or title = newts', 'title = "eels" or title = "newts" and year = "1998"'],
  ['eels and newts sortBy title', '"eels" and "newts" and year = "1998" sortBy title'],
  ['title = "eels', 'title = "eels'],
])('“%s” is narrowed to %s', (text, narrowed) => {
  expect(narrowedQuery(text, 'year', '=', '1998')).toBe(narrowed);
});

test('what a narrowed search finds is what both of its parts find', () => {
  for (const text of ['eels', 'title = newts or title = eels', 'ee', 'newts'])
    for (const [index, term] of [
      ['year', '1998'],
      ['heading', '7'],
      ['changedby', 'Nell "*" Arkwright'],
    ] as const) {
      const both = planOfTyped(narrowedQuery(text, index, '=', term));
      const [one, other] = [planOfTyped(text), planOfTyped(narrowedQuery('', index, '=', term))];
      if (!isPlan(both) || !isPlan(one) || !isPlan(other)) throw new Error(text);
      expect(isFound(eels, both)).toBe(isFound(eels, one) && isFound(eels, other));
    }
});

test.each([planOfTyped, headingPlanOfTyped])('more words than are looked for at once are told', (worked) => {
  const words = Array.from({ length: 61 }, (_, i) => `w${i}`);
  expect(isPlan(worked(words.slice(1).join(' ')))).toBe(true);
  expect(worked(words.join(' '))).toMatchObject({
    problem: 'There are 61 words; at most 60 are looked for at once.',
    code: 12,
  });
});

const withen: FindableHeading = {
  id: 12,
  words: {
    form: 'withen ada',
    seefrom: 'osierman ada fenwright a',
    seealso: 'reed una',
    note: 'letters 1901',
    identifier: 'wic w1 n 12001',
  },
  kind: 'personal',
  vocabulary: 'lcsh',
  records: 3,
  isEstablished: true,
  entries: { first: '2026-03-01T10:00:00.000Z', last: '2026-03-04T10:00:00.000Z', by: 'Nell Arkwright' },
};

test.each([
  ['ada with', true],
  ['osier ada', true],
  ['letters', false],
  ['note = letters', true],
  ['"reed una"', true],
  ['form = reed', false],
  ['form = "^withen"', true],
  ['see-from = fenwr*', true],
  ['heading all "ada withen" and kind = personal', true],
  ['kind any "topic place"', false],
  ['vocabulary = lcsh not records < 3', true],
  ['established = no or records > 3', false],
  ['number = 12', true],
  ['identifier = "n 12001"', true],
  ['changed = 2026-03 and changedby = "nell arkwright"', true],
  ['added > 2026-03', false],
  ['cql.allRecords = 1', true],
  ['', true],
])('of headings: %s', (text, found) => {
  const made = headingPlanOfTyped(text);
  if (!isPlan(made)) throw new Error(made.problem);
  expect(isHeadingFound(withen, made)).toBe(found);
});
