import fc from 'fast-check';
import { recogniseInput } from '../query';
import { field, type MarcRecord } from '../marc';
import {
  briefOf,
  columnAt,
  controlNumbers,
  FILING_TITLE,
  isbn13From,
  isbns,
  issns,
  otherNumbers,
  readIsbn,
  TITLE_WORDS,
  wordsAt,
} from '.';

const record = (...fields: MarcRecord['fields'][number][]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields,
});

describe('ISBN (ISO 2108)', () => {
  // The worked example of ISO 2108 and of the users' manual: 0-306-40615-2 is 978-0-306-40615-7.
  test('ten digits become thirteen', () => expect(isbn13From('0306406152')).toBe('9780306406157'));
  test.each([
    ['0306406152', '9780306406157', null],
    ['978-0-306-40615-7', '9780306406157', null],
    ['0-306-40615-2 (hbk.) £12', '9780306406157', null],
    ['080442957X', '9780804429573', null],
    ['0306406153', null, /should be 2/],
    ['9780306406158', null, /should be 7/],
    ['97803064061', null, /has 11 digits/],
  ])('%s', (text, isbn13, problem) => {
    const read = readIsbn(text)!;
    expect(read.isbn13).toBe(isbn13);
    if (problem) expect(read.problem).toMatch(problem);
    else expect(read.problem).toBeNull();
  });
  test('both lengths of one book are one key', () =>
    expect(
      isbns(record(field('020', '  ', 'a', '0306406152'), field('020', '  ', 'a', '9780306406157 (pbk.)'))),
    ).toEqual(['9780306406157']));
  test('every made ISBN-13 is right', () =>
    fc.assert(
      fc.property(fc.stringMatching(/^\d{9}$/), (nine) =>
        expect(readIsbn(isbn13From(`${nine}0`))!.problem).toBeNull(),
      ),
    ));
});

test('control numbers carry their organisation, from 003 or 035', () => {
  expect(
    controlNumbers(
      record(
        { tag: '001', value: ' 12 ' },
        { tag: '003', value: 'Wick' },
        field('035', '  ', 'a', '(OCoLC)ocm 77'),
      ),
    ),
  ).toEqual(['wick:12', 'ocolc:ocm77']);
  expect(controlNumbers(record({ tag: '001', value: '(A)1' }, field('035', '  ', 'a', ' B 2 ')))).toEqual([
    ':(a)1',
    ':b2',
  ]);
});

test('what a list shows is without ISBD punctuation', () => {
  const b = briefOf(
    record(
      field('100', '1 ', 'a', 'Reedman, A. B.,', 'e', 'author.'),
      field('245', '10', 'a', 'Notes on eels :', 'b', 'a book /', 'c', 'A.'),
      field('264', ' 1', 'b', 'Withy,', 'c', '©1990.'),
    ),
  );
  expect(b).toMatchObject({
    title: 'Notes on eels : a book',
    author: 'Reedman, A. B.',
    publisher: 'Withy',
    year: '1990',
  });
});

test('an 880 counts with the field it belongs to', () =>
  expect(
    wordsAt(
      TITLE_WORDS,
      record(
        field('245', '10', '6', '880-01', 'a', 'Pletenie'),
        field('880', '10', '6', '245-01/(N', 'a', 'Плетение'),
      ),
    ),
  ).toBe('pletenie плетение'));

// MARC 21, 245: the second indicator counts the characters that are not filed.
test('a title is filed without its nonfiling characters', () =>
  expect(columnAt(FILING_TITLE, record(field('245', '14', 'a', 'The Été /')))).toBe('ete'));

// MARC 21, 022, 024 and 028.
test('other numbers are kept by their kind, and an ISBN among them is left to the ISBN', () => {
  const numbers = record(
    field('022', '  ', 'a', '0317-847x', 'a', '0317-847X', 'a', '12'),
    field('024', '3 ', 'a', '978-0-306-40615-7', 'a', '5 012345 678900'),
    field('024', '7 ', 'a', '10.1000/182', '2', 'doi'),
    field('028', '02', 'a', 'STMA 8007', 'b', 'Tamla Motown'),
    field('024', '8 ', 'a', '12'),
  );
  expect(issns(numbers)).toEqual(['0317847X']);
  expect(otherNumbers(numbers)).toEqual([
    '024 3:5012345678900',
    '024 doi:10.1000/182',
    '028 tamla motown:stma8007',
  ]);
});

describe('what the scan line takes an input for', () => {
  test.each([
    ['31204000517715', 'barcode'],
    ['A31204000517715B', 'barcode'],
    ['3 1204 00051771 5', 'barcode'],
    ['978-0-306-40615-7', 'isbn'],
    ['0306406152', 'isbn'],
    ['record 12', 'record'],
    ['heading 88', 'heading'],
    ['h 88', 'heading'],
    ['746.41 REE', 'call number'],
    ['QA76.73', 'call number'],
    ['082', 'call number'],
    ['245$a', 'field address'],
    ['008/35-37', 'field address'],
    ['650{$v~\\Juvenile}', 'field address'],
    ['245$', 'words'],
    ['willow hurdles', 'words'],
    ['1984', 'words'],
    ['', 'words'],
  ])('%s: %s', (input, as) => expect(recogniseInput(input).as).toBe(as));
});
