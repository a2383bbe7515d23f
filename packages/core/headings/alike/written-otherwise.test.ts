import { field, type MarcRecord } from '../../marc';
import { alikeForms, gather, type Gathered } from '.';

type Subs = readonly string[];

/** The verdict on two authority records by themselves, found as in a file: by their buckets first. */
function verdictOf(tag: string, a: Subs, b: Subs): string {
  const gathered: Gathered = { headings: new Map() };
  const record = (subs: Subs): MarcRecord => ({
    leader: '00000nz  a2200000n  4500',
    fields: [field(tag, '1 ', ...subs)],
  });
  for (const subs of [a, b]) gather(gathered, record(subs));
  return alikeForms(gathered)[0]?.verdict ?? 'different';
}

test.each<[string, string, Subs, Subs, string]>([
  [
    'at work, in new words',
    '100',
    ['a', 'Holt, Kit,', 'd', 'active 1650-1670'],
    ['a', 'Holt, Kit,', 'd', 'fl. 1650-1670'],
    'same',
  ],
  [
    'at work, for a part of the time',
    '100',
    ['a', 'Holt, Kit,', 'd', 'active 1650-1670'],
    ['a', 'Holt, Kit,', 'd', 'active 1660-1680'],
    'perhaps',
  ],
  [
    'a century, in new words',
    '100',
    ['a', 'Holt, Kit,', 'd', '17th cent.'],
    ['a', 'Holt, Kit,', 'd', 'active 17th century'],
    'same',
  ],
  [
    'dead before Christ, and after',
    '100',
    ['a', 'Osric,', 'd', '55 B.C.-20 B.C.'],
    ['a', 'Osric,', 'd', '55 B.C.-20 A.D.'],
    'different',
  ],
  [
    'A.D. before or behind the year',
    '100',
    ['a', 'Osric,', 'd', '63 B.C.-14 A.D.'],
    ['a', 'Osric,', 'd', '63 B.C.-A.D. 14'],
    'same',
  ],
  [
    'before Christ, once and twice',
    '100',
    ['a', 'Osric,', 'd', '65 B.C.-8 B.C.'],
    ['a', 'Osric,', 'd', '65-8 B.C.'],
    'same',
  ],
  [
    'born before Christ, and after',
    '100',
    ['a', 'Osric,', 'd', '55 B.C.-'],
    ['a', 'Osric,', 'd', '55-'],
    'different',
  ],
  [
    'an address among the forenames',
    '100',
    ['a', 'Holt, Sir Edmund,', 'd', '1800-1850'],
    ['a', 'Holt, Edmund,', 'c', 'Sir,', 'd', '1800-1850'],
    'same',
  ],
  ['a wife by her husband’s name', '100', ['a', 'Holt, Mrs. Amos'], ['a', 'Holt, Amos'], 'different'],
  ['a sister before her name', '100', ['a', 'Sister Aveline'], ['a', 'Aveline,', 'c', 'Sister'], 'same'],
  [
    'a brother in inverted order',
    '100',
    ['a', 'Gilbertine, Brother'],
    ['a', 'Brother Gilbertine'],
    'perhaps',
  ],
  ['a saint before the name', '100', ['a', 'St. Brendard'], ['a', 'Brendard,', 'c', 'Saint'], 'same'],
  [
    'a saint that is a forename',
    '100',
    ['a', 'Holt, St. John G.,', 'd', '1883-1971'],
    ['a', 'Holt, Saint John Greer,', 'd', '1883-1971'],
    'same',
  ],
  [
    'two transliterations, of both names',
    '100',
    ['a', 'Tchaikin, Pyotr,', 'd', '1840-1893'],
    ['a', 'Chaikin, Petr,', 'd', '1840-1893'],
    'perhaps',
  ],
  [
    'a familiar form with both years',
    '100',
    ['a', 'Holt, Bob,', 'd', '1932-2001'],
    ['a', 'Holt, Robert,', 'd', '1932-2001'],
    'same',
  ],
  [
    'a familiar form with one year',
    '100',
    ['a', 'Holt, Liz,', 'd', '1932-'],
    ['a', 'Holt, Elizabeth,', 'd', '1932-'],
    'perhaps',
  ],
  ['a familiar form without years', '100', ['a', 'Holt, Bob'], ['a', 'Holt, Robert'], 'different'],
  [
    'the second forename alone, with a year',
    '100',
    ['a', 'Holt, W. Alan,', 'd', '1932-'],
    ['a', 'Holt, Alan,', 'd', '1932-'],
    'perhaps',
  ],
  [
    'the second forename alone, in another year',
    '100',
    ['a', 'Holt, W. Alan,', 'd', '1932-'],
    ['a', 'Holt, Alan,', 'd', '1933-'],
    'different',
  ],
  [
    'a particle in one word',
    '100',
    ['a', 'Le Guenne, Uma,', 'd', '1929-'],
    ['a', 'LeGuenne, Uma,', 'd', '1929-'],
    'same',
  ],
  [
    'an ordinal in words',
    '110',
    ['a', 'Third Reformed Church of Wick'],
    ['a', '3rd Reformed Church of Wick'],
    'same',
  ],
  [
    'another ordinal',
    '110',
    ['a', 'Third Reformed Church of Wick'],
    ['a', '2nd Reformed Church of Wick'],
    'different',
  ],
  ['three dimensions', '110', ['a', 'Third Printing Society'], ['a', '3D Printing Society'], 'different'],
  [
    'a body between',
    '110',
    ['a', 'Wick.', 'b', 'Ministry of Health.', 'b', 'Statistics Division'],
    ['a', 'Wick.', 'b', 'Statistics Division'],
    'perhaps',
  ],
  [
    'another body between',
    '110',
    ['a', 'Wick.', 'b', 'Ministry of Health.', 'b', 'Statistics Division'],
    ['a', 'Wick.', 'b', 'Ministry of Peat.', 'b', 'Statistics Division'],
    'different',
  ],
  [
    'a library of a school, and of its university',
    '110',
    ['a', 'University of Wick.', 'b', 'Library'],
    ['a', 'University of Wick.', 'b', 'School of Law.', 'b', 'Library'],
    'different',
  ],
  [
    'a meeting without its number',
    '111',
    ['a', 'Congress of Eels', 'n', '(2nd :', 'd', '1990 :', 'c', 'Wick)'],
    ['a', 'Congress of Eels', 'd', '(1990 :', 'c', 'Wick)'],
    'perhaps',
  ],
  [
    'a meeting, and all of its name',
    '111',
    ['a', 'Congress of Eels'],
    ['a', 'Congress of Eels', 'd', '(1990 :', 'c', 'Wick)'],
    'different',
  ],
  [
    'a number written 2d',
    '111',
    ['a', 'Congress of Eels', 'n', '(2d :', 'd', '1990 :', 'c', 'Wick)'],
    ['a', 'Congress of Eels', 'n', '(2nd :', 'd', '1990 :', 'c', 'Wick)'],
    'same',
  ],
  [
    'a plural in a subdivision',
    '150',
    ['a', 'Boats', 'x', 'Law and legislation', 'z', 'Wick'],
    ['a', 'Boats', 'x', 'Laws and legislation', 'z', 'Wick'],
    'perhaps',
  ],
  [
    'a letter in a subdivision',
    '150',
    ['a', 'Boats', 'x', 'Technique'],
    ['a', 'Boats', 'x', 'Tecnique'],
    'perhaps',
  ],
  [
    'another subdivision',
    '150',
    ['a', 'Boats', 'x', 'History'],
    ['a', 'Boats', 'x', 'Handling'],
    'different',
  ],
  [
    'another century',
    '150',
    ['a', 'Boats', 'y', '19th century'],
    ['a', 'Boats', 'y', '18th century'],
    'different',
  ],
  [
    'two violins, and one',
    '100',
    ['a', 'Holt, F.', 't', 'Sonatas,', 'm', 'violin'],
    ['a', 'Holt, F.', 't', 'Sonatas,', 'm', 'violins'],
    'different',
  ],
  [
    'an and in the language of a title',
    '130',
    ['a', 'Song of Wick.', 'l', 'English & Wickish'],
    ['a', 'Song of Wick.', 'l', 'English and Wickish'],
    'same',
  ],
])('%s', (_what, tag, a, b, expected) => {
  expect([verdictOf(tag, a, b), verdictOf(tag, b, a)]).toEqual([expected, expected]);
});
