import { field, type MarcRecord } from '../../marc';
import { alikeForms, compareForms, formIn, gather, type Gathered } from '.';
import { compareDates, isPlausible, readLifeDates } from './life-dates';

type Subs = readonly string[];
const form = (tag: string, ...subs: Subs) => formIn(field(tag, '1 ', ...subs))!;
const verdict = (tag: string, a: Subs, b: Subs) => compareForms(form(tag, ...a), form(tag, ...b)).verdict;

test.each<[string, string, string, string | null]>([
  ['both years', '1871-1940', '1871-1940', null],
  ['a closed and an open date', '1871-1940', '1871-', null],
  ['born and b.', 'b. 1871', '1871-1940', null],
  ['died', 'd. 1940', '1871-1940', null],
  ['a year that may be the next', '1871 or 2-1940', '1872-1940', null],
  ['an estimate near by', 'approximately 1875-1940', '1871-1940', null],
  ['an estimate far off', 'ca. 1850-1940', '1871-1940', 'the years of birth differ'],
  ['with month and day', '1871 January 3-1940', '1871-1940', null],
  ['another birth', '1872-1940', '1871-1940', 'the years of birth differ'],
  ['another death', '1871-1941', '1871-1940', 'the years of death differ'],
  ['dead before the other was born', '1600-1640', '1871-', 'the years of birth differ'],
  ['died before the other was born', '-1640', '1871-', 'one was born after the other had died'],
  ['before Christ, twice and once', '384 B.C.-322 B.C.', '384-322 B.C.', null],
  ['before and after Christ', '84 B.C.-22 B.C.', '84-22', 'the years of birth differ'],
  [
    'at work before the other was born',
    'active 1800-1820',
    '1871-1940',
    'one was at work before the other was born',
  ],
  ['at work in a century of the life', 'active 19th century', '1871-1940', null],
  ['at work in another century', 'fl. 12th cent.', '1871-1940', 'one was at work before the other was born'],
  ['before Christ, said of the first year', '84 B.C.-22', '84-22 B.C.', null],
  ['three digits', '850-912', '850-912', null],
  ['born about a year, and before Christ', 'b. c. 1750', '1752-1810', null],
])('dates: %s', (_what, a, b, conflict) => {
  expect(compareDates(readLifeDates(a), readLifeDates(b)).conflict).toBe(conflict);
  expect(compareDates(readLifeDates(b), readLifeDates(a)).conflict).toBe(conflict);
});
test('nothing appears before somebody is ten', () => {
  expect(isPlausible(readLifeDates('1871-1940'), [1875, 1900])).toBe(false);
  expect(isPlausible(readLifeDates('1871-1940'), [1900, 1990])).toBe(true);
  expect(isPlausible(null, [1900])).toBeNull();
});

test.each<[string, Subs, Subs, string]>([
  ['an initial with a year', ['a', 'Holt, A.,', 'd', '1871-'], ['a', 'Holt, Ada,', 'd', '1871-1940'], 'same'],
  ['an initial without dates', ['a', 'Holt, A.'], ['a', 'Holt, Ada,', 'd', '1871-1940'], 'perhaps'],
  ['the only one of the name', ['a', 'Holt, Ada'], ['a', 'Holt, Ada,', 'd', '1871-1940'], 'same'],
  [
    'a fuller form',
    ['a', 'Holt, A. M.', 'q', '(Ada Mary),', 'd', '1871-'],
    ['a', 'Holt, Ada Mary,', 'd', '1871-'],
    'same',
  ],
  ['a fuller form of another name', ['a', 'Holt, A.', 'q', '(Agnes)'], ['a', 'Holt, Ada'], 'different'],
  ['an old abbreviation', ['a', 'Holt, Wm.,', 'd', '1871-'], ['a', 'Holt, William,', 'd', '1871-'], 'same'],
  ['another forename of one initial', ['a', 'Holt, Ada'], ['a', 'Holt, Agnes'], 'different'],
  ['a junior without dates', ['a', 'Holt, Sam'], ['a', 'Holt, Sam,', 'c', 'Jr.'], 'different'],
  ['two of one name', ['a', 'Holt, Sam,', 'c', 'Jr.'], ['a', 'Holt, Sam,', 'c', 'Sr.'], 'different'],
  ['a wife', ['a', 'Holt, Sam,', 'c', 'Mrs.'], ['a', 'Holt, Sam'], 'different'],
  [
    'a title of courtesy',
    ['a', 'Holt, Sam,', 'c', 'Sir,', 'd', '1871-'],
    ['a', 'Holt, Sam,', 'd', '1871-'],
    'same',
  ],
  [
    'a particle in another place',
    ['a', 'De la Fenn, Jan,', 'd', '1871-'],
    ['a', 'Fenn, Jan de la,', 'd', '1871-'],
    'same',
  ],
  ['a hyphen', ['a', 'Holt-Fenn, Ada,', 'd', '1871-'], ['a', 'Holt Fenn, Ada,', 'd', '1871-'], 'same'],
  [
    'an umlaut written out',
    ['a', 'Müller, Ada,', 'd', '1871-'],
    ['a', 'Mueller, Ada,', 'd', '1871-'],
    'same',
  ],
  ['Mc and Mac', ['a', 'McAdam, Ian,', 'd', '1871-'], ['a', 'MacAdam, Ian,', 'd', '1871-'], 'same'],
  [
    'a letter with both years',
    ['a', 'Reedman, Amos,', 'd', '1871-1940'],
    ['a', 'Readman, Amos,', 'd', '1871-1940'],
    'same',
  ],
  ['a letter without', ['a', 'Reedman, Amos'], ['a', 'Readman, Amos'], 'different'],
  [
    'a transliteration',
    ['a', 'Tchaikin, Pavel,', 'd', '1871-1940'],
    ['a', 'Chaikin, Pavel,', 'd', '1871-1940'],
    'same',
  ],
  [
    'a forename more, with dates',
    ['a', 'Holt, Ada,', 'd', '1871-1940'],
    ['a', 'Holt, Ada Mary,', 'd', '1871-1940'],
    'same',
  ],
  [
    'two queens',
    ['a', 'Maud', 'b', 'I,', 'c', 'Queen of Wick'],
    ['a', 'Maud', 'b', 'II,', 'c', 'Queen of Wick'],
    'different',
  ],
  ['a king and a saint', ['a', 'Osric,', 'c', 'King of Wick'], ['a', 'Osric,', 'c', 'Saint'], 'different'],
])('persons: %s', (_what, a, b, expected) => {
  expect([verdict('100', a, b), verdict('100', b, a)]).toEqual([expected, expected]);
});

test.each<[string, string, Subs, Subs, string]>([
  [
    '110',
    'short forms',
    ['a', 'U.S. Dept. of Labor'],
    ['a', 'United States.', 'b', 'Department of Labor'],
    'same',
  ],
  ['110', 'an ampersand', ['a', 'Holt & Sons'], ['a', 'Holt and Sons'], 'same'],
  ['110', 'an article', ['a', 'The Hammer Society'], ['a', 'Hammer Society'], 'same'],
  [
    '110',
    'another unit',
    ['a', 'Wick.', 'b', 'Department of Eels'],
    ['a', 'Wick.', 'b', 'Department of Fords'],
    'different',
  ],
  [
    '110',
    'what stands in brackets',
    ['a', 'Hammer Society (Wick)'],
    ['a', 'Hammer Society (Harrow)'],
    'different',
  ],
  ['110', 'brackets on one side', ['a', 'Hammer Society (Wick)'], ['a', 'Hammer Society'], 'perhaps'],
  ['110', 'what kind of company', ['a', 'Withy Press, Inc.'], ['a', 'Withy Press'], 'perhaps'],
  [
    '111',
    'number, date and place',
    ['a', 'Congress of Tools', 'n', '(2nd :', 'd', '1948 :', 'c', 'Wick)'],
    ['a', 'Cong. of Tools (2nd : 1948 : Wick)'],
    'same',
  ],
  [
    '111',
    'another number',
    ['a', 'Congress of Tools', 'n', '(2nd)'],
    ['a', 'Congress of Tools', 'n', '(3rd)'],
    'different',
  ],
  ['130', 'an article', ['a', 'The book of eels'], ['a', 'Book of eels'], 'same'],
  ['130', 'another language', ['a', 'Book of eels', 'l', 'French'], ['a', 'Book of eels'], 'different'],
  [
    '700',
    'a name and its title',
    ['a', 'Holt, A.,', 'd', '1871-', 't', 'Eels'],
    ['a', 'Holt, Ada,', 'd', '1871-', 't', 'Eels'],
    'same',
  ],
  [
    '700',
    'poems of two',
    ['a', 'Holt, Ada,', 'd', '1871-', 't', 'Poems'],
    ['a', 'Holt, Ann,', 'd', '1901-', 't', 'Poems'],
    'different',
  ],
  [
    '650',
    'divisions in another order',
    ['a', 'Eels', 'z', 'Wick', 'x', 'History'],
    ['a', 'Eels', 'x', 'History', 'z', 'Wick'],
    'same',
  ],
  ['650', 'a form and a topic', ['a', 'Eels', 'v', 'Maps'], ['a', 'Eels', 'x', 'Maps'], 'same'],
  [
    '650',
    'topics in another order',
    ['a', 'Eels', 'x', 'Law', 'x', 'History'],
    ['a', 'Eels', 'x', 'History', 'x', 'Law'],
    'different',
  ],
  ['650', 'one division more', ['a', 'Eels', 'x', 'History'], ['a', 'Eels'], 'different'],
  ['650', 'a plural', ['a', 'Ferries'], ['a', 'Ferry'], 'perhaps'],
  ['650', 'two things that look alike', ['a', 'Painting'], ['a', 'Printing'], 'different'],
])('%s: %s', (tag, _what, a, b, expected) => {
  expect([verdict(tag, a, b), verdict(tag, b, a)]).toEqual([expected, expected]);
});

const record = (fields: MarcRecord['fields'], leader = '00000nam a2200000 i 4500'): MarcRecord => ({
  leader,
  fields,
});
function groups(...records: MarcRecord[]) {
  const gathered: Gathered = { headings: new Map() };
  for (const r of records) gather(gathered, r);
  return alikeForms(gathered).map((g) => [g.verdict, ...g.members]);
}
const by = (...subs: Subs) => record([field('100', '1 ', ...subs)]);

test('an undated form joins a dated one only when one person of the name is there', () => {
  const [one, other, none] = [
    by('a', 'Holt, Ada,', 'd', '1871-'),
    by('a', 'Holt, Ada,', 'd', '1902-'),
    by('a', 'Holt, Ada'),
  ];
  expect(groups(one, none)).toEqual([['same', 'Holt, Ada', 'Holt, Ada, 1871-']]);
  expect(groups(one, other, none)).toEqual([
    ['perhaps', 'Holt, Ada', 'Holt, Ada, 1871-'],
    ['perhaps', 'Holt, Ada', 'Holt, Ada, 1902-'],
  ]);
});
test('two in one record are two, unless the record is about its author; a see-from decides', () => {
  const [full, short] = [
    field('100', '1 ', 'a', 'Holt, Ada,', 'd', '1871-'),
    field('700', '1 ', 'a', 'Holt, Ada'),
  ];
  expect(groups(record([full, short]))).toEqual([]);
  expect(groups(record([full, { ...short, tag: '600', ind2: '0' }]))).toHaveLength(1);
  const authority = record(
    [
      field('100', '1 ', 'a', 'Holt, Ada,', 'd', '1871-'),
      field('400', '1 ', 'a', 'Fenn, Ada,', 'd', '1871-'),
    ],
    '00000nz  a2200000n  4500',
  );
  expect(groups(authority, by('a', 'Fenn, Ada,', 'd', '1871-'))).toEqual([
    ['same', 'Fenn, Ada, 1871-', 'Holt, Ada, 1871-'],
  ]);
});
// MARC 21 Format for Authority Data, 008/09 and 008/32.
test('a name of several persons is never the same as another; references and subdivisions are no headings', () => {
  const authority = (kind: string, single: string, ...subs: Subs) =>
    record(
      [{ tag: '008', value: `261128n| ${kind}`.padEnd(32, '|') + single }, field('100', '1 ', ...subs)],
      '00000nz  a2200000n  4500',
    );
  const dated = ['a', 'Holt, Ada,', 'd', '1871-'];
  expect(groups(authority('a', 'a', ...dated), by('a', 'Holt, Ada'))[0]![0]).toBe('same');
  expect(groups(authority('a', 'a', ...dated), authority('a', 'b', 'a', 'Holt, Ada'))[0]![0]).toBe('perhaps');
  expect(groups(authority('a', 'a', ...dated), authority('c', 'a', 'a', 'Holt, Ada'))).toEqual([]);
});
test('a shared title speaks for an initial, a generic one does not; works before the birth speak against', () => {
  const wrote = (name: Subs, title: string, year = '1900') =>
    record([
      { tag: '008', value: `261128s${year}    enk           000 0 eng d` },
      field('100', '1 ', ...name),
      field('245', '10', 'a', title),
    ]);
  const full = ['a', 'Holt, Ada,', 'd', '1871-1940'];
  const found = (title: string, other = title, year = '1900') =>
    groups(
      wrote(full, title),
      wrote(['a', 'Holt, A.'], other, year),
      by('a', 'Holt, Agnes'),
      by('a', 'Holt, Amy'),
      by('a', 'Holt, Ann'),
    );
  expect(found('The eel book')).toContainEqual(
    ['perhaps', 'Holt, A', 'Holt, Ada, 1871-1940'].map((t) => (t === 'Holt, A' ? 'Holt, A.' : t)),
  );
  expect(found('Poems').flat()).not.toContain('same');
  expect(
    found('The eel book', 'Another', '1860')
      .flat()
      .filter((t) => t === 'Holt, Ada, 1871-1940'),
  ).toEqual([]);
});
test('headings of two vocabularies are two', () => {
  const subject = (ind2: string, ...subs: Subs) => record([field('650', ` ${ind2}`, ...subs)]);
  expect(groups(subject('0', 'a', 'Eels'), subject('2', 'a', 'EELS'))).toEqual([]);
  expect(groups(subject('0', 'a', 'Eels'), subject('0', 'a', 'EELS'))).toEqual([['same', 'EELS', 'Eels']]);
});
test('what differs from anybody of a group is not in it, and the order of records changes nothing', () => {
  const records = [
    by('a', 'Holt, Ada,', 'd', '1871-1940'),
    by('a', 'Holt, A.,', 'd', '1871-'),
    by('a', 'Holt, Ada Mary,', 'd', '-1940'),
    by('a', 'Holt, Ada Jane,', 'd', '-1940'),
    by('a', 'Holt, Ada'),
  ];
  const found = groups(...records);
  for (const [verdict, ...members] of found)
    if (verdict === 'same')
      expect(['Holt, Ada Mary, -1940', 'Holt, Ada Jane, -1940'].every((m) => members.includes(m))).toBe(
        false,
      );
  expect(found.length).toBeGreaterThan(0);
});
