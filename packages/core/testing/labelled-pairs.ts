import { field, isData, type DataField, type Field, type MarcRecord } from '../marc';

/**
 * Pairs of records of which it is known whether they are the same, for measuring a match rule. How they are made: twenty-four
 * invented books, each paired with variations of itself. Fifteen kinds of variation keep it the same book (another hand's
 * spelling, numbers, punctuation, fullness), fourteen make it another one that looks like it. No record stands in any
 * catalogue; the kinds are those that suppliers' and exchange partners' files show (common practice, no source).
 */
export interface LabelledPair {
  readonly kind: string;
  readonly same: boolean;
  readonly incoming: MarcRecord;
  readonly held: MarcRecord;
}

interface Book {
  readonly article: string;
  readonly title: string;
  readonly sub: string;
  readonly author: string;
  readonly year: number;
  readonly publisher: string;
  readonly place: string;
  readonly pages: number;
}
const BOOKS: readonly Book[] = [
  [
    'The ',
    'hurdle maker',
    'wattle and coppice in the chalk country',
    'Reedman, Amos',
    1987,
    'Furrow & Byre Press',
    'Tetbury',
    212,
  ],
  ['', 'Notes on eels', 'their traps and their takers', 'Sallow, Edith M.', 1974, 'Marsh House', 'Ely', 96],
  [
    'A ',
    'handbook of thatch',
    'long straw, combed wheat and water reed',
    'Thackwell, John',
    2003,
    'Ridge Books',
    'Bicester',
    340,
  ],
  [
    '',
    'Willow',
    'growing, cutting, weaving',
    'Osborne-Hythe, Clara',
    2011,
    'Withy Publishing Ltd',
    'Bridgwater',
    188,
  ],
  ['Die ', 'Weide im Korb', 'ein Werkbuch', 'Flechtner, Jörg', 1999, 'Verlag am Bach', 'Lichtenfels', 156],
  [
    'Le ',
    'vannier du marais',
    "récits d'atelier",
    'Jonquet, Thérèse',
    1968,
    'Éditions du Roseau',
    'Niort',
    204,
  ],
  [
    '',
    'Dry stone walling in the Pennines',
    'a field guide',
    'Capstone, Ruth',
    1992,
    'Throughstone Press',
    'Skipton',
    128,
  ],
  ['', 'Madder, weld and woad', 'three old dyes', 'Tinctor, Agnes', 2016, 'Vat & Mordant', 'Lavenham', 176],
  [
    'The ',
    'skep beekeepers companion',
    'straw hives and heather honey',
    'Hackle, Simeon',
    1955,
    'Heath Press',
    'Thetford',
    144,
  ],
  ['', 'Poems', 'from the osier beds', 'Withers, Nan', 1981, 'Holt Lane', 'Norwich', 64],
  [
    '',
    'Coracles of the western rivers',
    'their building and use',
    'Tywi, Dafydd',
    1979,
    'Gwasg yr Afon',
    'Carmarthen',
    120,
  ],
  [
    'An ',
    'index of basket weaves',
    'with drawings by the author',
    'Plait, Rosamund',
    2008,
    'Side Stitch',
    'Taunton',
    402,
  ],
  [
    '',
    'Hedgelaying explained',
    'styles of eleven counties',
    'Pleacher, Murray',
    1984,
    'National Billhook Society',
    'Melton',
    82,
  ],
  [
    '',
    'Rope, twine and cord',
    'from hemp field to ropewalk',
    'Strand, Beatrice',
    2001,
    'Walk Publications',
    'Bridport',
    236,
  ],
  ['', 'Rush seating for beginners', '', 'Chairbottomer, Tom', 2014, 'Bolton & Rush', 'St Ives', 72],
  ['The ', 'spinning gallery', 'wool in the northern dales', 'Whorl, Hannah', 1963, 'Distaff', 'Kendal', 190],
  ['', 'Kosze i ludzie', 'opowieści z nad rzeki', 'Łozinska, Żaneta', 1994, 'Wiklina', 'Rudnik', 168],
  ['', 'Charcoal burners of the weald', 'a memoir', 'Clamp, Arthur', 1947, 'Hurst & Kiln', 'Lewes', 150],
  ['', 'Besoms and brooms', '', 'Birch, Ephraim', 1971, 'Ling Press', 'Tadley', 58],
  [
    '',
    'Green woodwork week by week',
    'a course in twelve projects',
    'Shave, Imogen',
    2019,
    'Pole Lathe Books',
    'Ledbury',
    264,
  ],
  [
    'El ',
    'mimbre de la sierra',
    'cesteros y cestas',
    'Mimbral, Aurora',
    1990,
    'Ediciones Cañamares',
    'Cuenca',
    132,
  ],
  ['', 'Trugs', 'the Sussex basket', 'Handle, Frederick', 1997, 'Downland', 'Hailsham', 104],
  ['', 'Annual report', '', 'Wickmere Institute of Rural Crafts', 2005, 'The Institute', 'Wickmere', 40],
  [
    '',
    'Introduction to weaving',
    'looms, warps and patterns',
    'Heddle, Margaret',
    2007,
    'Shuttle Books',
    'Macclesfield',
    288,
  ],
].map(
  ([article, title, sub, author, year, publisher, place, pages]) =>
    ({ article, title, sub, author, year, publisher, place, pages }) as Book,
);

const check13 = (twelve: string) => {
  let sum = 0;
  for (let i = 0; i < 12; i++) sum += Number(twelve[i]) * (i % 2 ? 3 : 1);
  return twelve + String((10 - (sum % 10)) % 10);
};
const isbnOf = (n: number) => check13(`97819999${String(1000 + n)}`);
const isbn10 = (isbn: string) => {
  const nine = isbn.slice(3, 12);
  let sum = 0;
  for (let i = 0; i < 9; i++) sum += (10 - i) * Number(nine[i]);
  const c = (11 - (sum % 11)) % 11;
  return nine + (c === 10 ? 'X' : String(c));
};

function bookRecord(b: Book, n: number): MarcRecord {
  const title = b.article ? b.article + b.title : b.title;
  const corporate = b.author.includes('Institute');
  return {
    leader: '00000nam a2200000 i 4500',
    fields: [
      { tag: '008', value: `200101s${b.year}    enka          001 0 eng d` },
      field('020', '  ', 'a', isbnOf(n)),
      corporate
        ? field('110', '2 ', 'a', `${b.author}.`)
        : field('100', '1 ', 'a', `${b.author},`, 'e', 'author.'),
      b.sub
        ? field(
            '245',
            `1${b.article.length}`,
            'a',
            `${title} :`,
            'b',
            `${b.sub} /`,
            'c',
            `${b.author.split(', ').reverse().join(' ')}.`,
          )
        : field(
            '245',
            `1${b.article.length}`,
            'a',
            `${title} /`,
            'c',
            `${b.author.split(', ').reverse().join(' ')}.`,
          ),
      field('264', ' 1', 'a', `${b.place} :`, 'b', `${b.publisher},`, 'c', `${b.year}.`),
      field('300', '  ', 'a', `${b.pages} pages :`, 'b', 'illustrations ;', 'c', '22 cm'),
    ],
  };
}

type Edit = (r: MarcRecord, b: Book, n: number) => MarcRecord;
const mapFields = (
  r: MarcRecord,
  tag: string | RegExp,
  change: (f: DataField) => Field | null,
): MarcRecord => ({
  ...r,
  fields: r.fields.flatMap((f): Field[] => {
    if (!isData(f) || !(typeof tag === 'string' ? f.tag === tag : tag.test(f.tag))) return [f];
    const changed = change(f);
    return changed ? [changed] : [];
  }),
});
const text = (f: DataField, code: string, change: (value: string) => string): DataField => ({
  ...f,
  subfields: f.subfields.map((s) => (s.code === code ? { ...s, value: change(s.value) } : s)),
});
const without = (r: MarcRecord, tag: string) => mapFields(r, tag, () => null);
const withMore = (r: MarcRecord, ...more: Field[]): MarcRecord => ({
  ...r,
  fields: [...r.fields, ...more].sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : 0)),
});
const year = (r: MarcRecord, to: number): MarcRecord => ({
  ...mapFields(r, '264', (f) => text(f, 'c', () => `${to}.`)),
  fields: mapFields(r, '264', (f) => text(f, 'c', () => `${to}.`)).fields.map((f) =>
    f.tag === '008' && 'value' in f ? { ...f, value: f.value.slice(0, 7) + to + f.value.slice(11) } : f,
  ),
});
const otherIsbn = (r: MarcRecord, n: number) =>
  mapFields(r, '020', () => field('020', '  ', 'a', isbnOf(n + 500)));
const dropLetter = (t: string) => t.slice(0, 4) + t.slice(5);

/** What another hand makes of the same book. */
const SAME: Record<string, Edit> = {
  'as it is': (r) => r,
  'ISBN in ten digits with a price': (r, _, n) =>
    mapFields(r, '020', () => field('020', '  ', 'a', `${isbn10(isbnOf(n))} (pbk.) : £12.50`)),
  'hyphens in the ISBN': (r, _, n) =>
    mapFields(r, '020', () =>
      field('020', '  ', 'a', isbnOf(n).replace(/^(...)(.)(....)(....)(.)$/, '$1-$2-$3-$4-$5')),
    ),
  'title in capitals': (r) =>
    mapFields(r, '245', (f) =>
      text(
        text(f, 'a', (v) => v.toUpperCase()),
        'b',
        (v) => v.toUpperCase(),
      ),
    ),
  'no subtitle': (r) =>
    mapFields(r, '245', (f) => ({ ...f, subfields: f.subfields.filter((s) => s.code !== 'b') })),
  'a letter lost in the title': (r) =>
    mapFields(r, '245', (f) => text(f, 'a', (v) => `${v.slice(0, 6)}${v.slice(7)}`)),
  'no ISBN': (r) => without(r, '020'),
  'no ISBN, letter lost': (r) => mapFields(without(r, '020'), '245', (f) => text(f, 'a', dropLetter)),
  'no ISBN, pages counted otherwise': (r, b) =>
    mapFields(without(r, '020'), '300', (f) => text(f, 'a', () => `viii, ${b.pages + 2} p. :`)),
  'no ISBN, publisher shortened': (r, b) =>
    mapFields(without(r, '020'), '264', (f) => text(f, 'b', () => `${b.publisher.split(' ')[0]},`)),
  'author with dates and initials': (r, b) =>
    mapFields(r, '100', () =>
      field('100', '1 ', 'a', `${b.author.replace(/, (\p{L})\p{L}+/u, ', $1.')},`, 'd', '1931-'),
    ),
  'no marks on letters': (r) =>
    mapFields(without(r, '020'), /^(100|245|264)$/, (f) => ({
      ...f,
      subfields: f.subfields.map((s) => ({
        ...s,
        value: s.value.normalize('NFD').replace(/\p{M}/gu, '').replace(/[łŁ]/g, 'l'),
      })),
    })),
  'brief record': (r) => ({ ...r, fields: r.fields.filter((f) => ['008', '020', '245'].includes(f.tag)) }),
  'copyright date of the year before': (r, b) => year(r, b.year - 1),
  'pages and no publisher': (r) =>
    mapFields(without(r, '020'), '264', (f) => ({
      ...f,
      subfields: f.subfields.filter((s) => s.code === 'c'),
    })),
};

/** What looks like it and is another thing. */
const OTHER: Record<string, Edit> = {
  'the ISBN used again for another title': (r) =>
    mapFields(r, '245', () =>
      field('245', '10', 'a', 'Tables of cordage strength /', 'c', 'the Board of Trade.'),
    ),
  'e-book under the same ISBN': (r) => ({
    ...mapFields(r, '300', () => field('300', '  ', 'a', '1 online resource')),
    fields: mapFields(r, '300', () => field('300', '  ', 'a', '1 online resource')).fields,
  }),
  'film of the book': (r) => ({
    ...mapFields(r, '300', () => field('300', '  ', 'a', '1 videodisc (58 min.)')),
    leader: '00000ngm a2200000 i 4500',
  }),
  'large print': (r, b, n) => ({
    ...otherIsbn(r, n),
    fields: otherIsbn(r, n).fields.map((f) =>
      f.tag === '008' && 'value' in f ? { ...f, value: `${f.value.slice(0, 23)}d${f.value.slice(24)}` } : f,
    ),
  }),
  'volume two under the ISBN of the set': (r, _, n) =>
    mapFields(
      mapFields(r, '245', (f) => ({
        ...f,
        subfields: [f.subfields[0]!, { code: 'n', value: 'Volume 2' }, ...f.subfields.slice(1)],
      })),
      '020',
      () => field('020', '  ', 'a', `${isbnOf(n)} (set)`),
    ),
  'third edition': (r, b, n) =>
    year(withMore(otherIsbn(r, n), field('250', '  ', 'a', '3rd ed.')), b.year + 6),
  'third edition, no ISBN': (r, b) =>
    year(withMore(without(r, '020'), field('250', '  ', 'a', 'Third edition.')), b.year + 2),
  'reprint thirty years on, no ISBN': (r, b) => year(without(r, '020'), b.year + 30),
  'another title of the same author and year': (r, b, n) =>
    mapFields(otherIsbn(r, n), '245', () =>
      field('245', '10', 'a', `Letters from ${b.place} /`, 'c', 'the author.'),
    ),
  'same title, another author': (r, _, n) =>
    mapFields(
      mapFields(otherIsbn(r, n), '100', () => field('100', '1 ', 'a', 'Quillfeather, Barnaby')),
      /^(110|264)$/,
      (f) =>
        f.tag === '110' ? field('110', '2 ', 'a', 'Ashlar Guild') : text(f, 'b', () => 'Another House,'),
    ),
  'same title, another author and year, no ISBN': (r, b) =>
    year(
      mapFields(
        mapFields(without(r, '020'), /^1[01]0$/, () => field('100', '1 ', 'a', 'Quillfeather, Barnaby')),
        '245',
        (f) => text(f, 'c', () => 'Barnaby Quillfeather.'),
      ),
      b.year + 1,
    ),
  'next part without ISBN': (r) =>
    mapFields(without(r, '020'), '245', (f) => ({
      ...f,
      subfields: [f.subfields[0]!, { code: 'n', value: 'Part II' }, ...f.subfields.slice(1)],
    })),
  'the same supplier number on another book': (r, _, n) =>
    mapFields(withMore(otherIsbn(r, n), { tag: '001', value: '12345' }), '245', () =>
      field('245', '10', 'a', 'A quite different matter'),
    ),
  'audio book under the same ISBN': (r) => ({
    ...mapFields(r, '300', () => field('300', '  ', 'a', '6 audio discs')),
    leader: '00000nim a2200000 i 4500',
  }),
};

/** All pairs, the same ones first. The held record of a supplier's number has that number without an organisation. */
export function labelledPairs(): LabelledPair[] {
  const make = (kinds: Record<string, Edit>, same: boolean) =>
    Object.entries(kinds).flatMap(([kind, edit]) =>
      BOOKS.map((b, n): LabelledPair => {
        const held = bookRecord(b, n);
        return {
          kind,
          same,
          incoming: edit(held, b, n),
          held: kind.includes('supplier number') ? withMore(held, { tag: '001', value: '12345' }) : held,
        };
      }),
    );
  return [...make(SAME, true), ...make(OTHER, false)];
}
