import fc from 'fast-check';
import { recogniseInput } from '../query';
import { field, type MarcRecord } from '../marc';
import { briefOf, controlNumbers, isbn13From, isbns, readIsbn, recordKeys, searchText } from '.';

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

test('an 880 counts with the field it belongs to', () => {
  expect(
    searchText(
      record(
        field('245', '10', '6', '880-01', 'a', 'Pletenie'),
        field('880', '10', '6', '245-01/(N', 'a', 'Плетение'),
      ),
    ).title,
  ).toBe('pletenie плетение');
  expect(recordKeys(record(field('245', '10', 'a', 'The Été /')))).toEqual([
    { kind: 'title', key: 'the ete' },
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
