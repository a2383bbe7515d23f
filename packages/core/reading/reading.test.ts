import { field, type MarcRecord } from '../marc';
import { readingOf } from '.';

const record: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '008', value: '261128s2019    xx ab  j      100 1ajpn d' },
    field('020', '  ', 'a', '0-306-40615-2', 'q', 'paperback'),
    field('082', '04', 'a', '639.1/2', '2', '23'),
    field('100', '1 ', '6', '880-01', 'a', 'Minase, Hatsu,', 'd', '1950-', 'e', 'author.'),
    field('245', '10', 'a', 'Takekago o amu /', 'c', 'Hatsu Minase.'),
    field('264', ' 1', 'a', 'Yanagi :', 'b', 'Aoyagi,', 'c', '2019.'),
    field('490', '1 ', 'a', 'Craft notes ;', 'v', '4'),
    field('500', '  ', 'a', 'Index.'),
    field('505', '0 ', 'a', 'Splits -- Rims.'),
    field('650', ' 0', 'a', 'Basket making', 'z', 'Japan.'),
    field('700', '1 ', 'a', 'Fen, Hob', '4', 'trl'),
    field('856', '40', 'u', 'https://osmere.example/takekago', 'y', 'Pictures'),
    field('856', '40', 'u', 'javascript:alert(1)'),
    field('880', '1 ', '6', '100-01/$1', 'a', '水無瀬, はつ,', 'd', '1950-', 'e', 'author.'),
  ],
};
const part = (name: string) => readingOf(record).find((p) => p.part === name)?.read;

test('names have their roles, their own script, and the heading that they are', () => {
  expect(part('names')).toEqual([
    {
      text: 'Minase, Hatsu, 1950- (author)',
      headings: ['personal naf MINASE, HATSU$d1950'],
      original: '水無瀬, はつ, 1950-',
    },
    { text: 'Fen, Hob (translator)', headings: ['personal naf FEN, HOB'] },
  ]);
});
test('subjects, series, numbers and classes lead on', () => {
  expect(part('subjects')).toEqual([
    { text: 'Basket making — Japan', headings: ['topic lcsh BASKET MAKING$zJAPAN'] },
  ]);
  expect(part('series')).toEqual([{ text: 'Craft notes ; 4', words: 'Craft notes' }]);
  expect(part('isbns')).toEqual([{ text: '0-306-40615-2 paperback', words: '9780306406157' }]);
  expect(part('classes')).toEqual([{ text: '639.1/2', words: '639.1' }]);
});
test('an address that is none of the web is text', () => {
  expect(part('links')).toEqual([
    { text: 'Pictures', address: 'https://osmere.example/takekago' },
    { text: 'javascript:alert(1)' },
  ]);
});
test('parts stand in the order of a title page, without those that are empty', () => {
  expect(readingOf(record).map((p) => p.part)).toEqual([
    'title',
    'names',
    'publication',
    'series',
    'isbns',
    'language',
    'contents',
    'subjects',
    'classes',
    'notes',
    'links',
  ]);
  expect(part('language')).toEqual([{ text: 'Japanese' }]);
});
