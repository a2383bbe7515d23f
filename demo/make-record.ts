import { isbn13From } from '@osier/core/access';
import { field, type Field, type MarcRecord } from '@osier/core/marc';
import { EAST_ASIAN, FOREIGN, type ForeignBook } from './foreign';
import { FOREIGN_NAMES } from './names';
import type { Author } from './people';
import type { Random } from './random';
import { titleFor } from './titles';
import { BODIES, PLACES, PUBLISHERS, TOPICS, type Topic } from './topics';

export type Material = 'BK' | 'PA' | 'VI' | 'PT' | 'KT';

export interface MadeRecord {
  readonly marc: MarcRecord;
  readonly material: Material;
  readonly topic: Topic;
}

const COUNTRIES: Record<string, string> = {
  London: 'enk',
  Bristol: 'enk',
  Leeds: 'enk',
  Cardiff: 'wlk',
  Dublin: 'ie ',
};
const EXTENTS: Record<Material, (r: Random) => [string, string]> = {
  BK: (r) => [
    `${r.pick(['vi, ', 'viii, ', 'x, ', '', ''])}${r.between(64, 412)} pages :`,
    `${r.between(19, 31)} cm`,
  ],
  PA: (r) => [`${r.between(8, 48)} pages :`, '21 cm'],
  VI: (r) => [`1 videodisc (${r.between(24, 96)} min.) :`, '12 cm'],
  PT: (r) => [`${r.between(1, 6)} pattern sheets ;`, 'folded to 24 x 17 cm'],
  KT: (r) => [`1 kit (${r.between(6, 40)} pieces) :`, 'in box 42 x 30 x 12 cm'],
};
const NOTES = [
  'Includes index.',
  'Bibliography: p. 181-186.',
  'Issued for the evening classes of the Institute.',
  'Reproduced from typescript.',
  'The plates are by the author’s sister.',
  'Measurements in inches throughout.',
  'First published as a series in the Institute’s journal.',
];

/** An ISBN of the imaginary group that the demo library keeps to; `n` makes it its own. */
export function isbn10(n: number): string {
  const nine = `19${String(7_000_000 + n).padStart(7, '0')}`;
  let sum = 0;
  for (let i = 0; i < 9; i++) sum += (10 - i) * Number(nine[i]);
  const check = (11 - (sum % 11)) % 11;
  return nine + (check === 10 ? 'X' : String(check));
}

const yearText = (year: number, random: Random) => (random.chance(0.3) ? `©${year}.` : `${year}.`);

/** 008 for a made record (MARC 21, 008 All materials and Books). */
function fixedField(n: number, year: number, country: string, language: string, material: Material): string {
  const entered = `${String((n % 20) + 4).padStart(2, '0')}${String((n % 12) + 1).padStart(2, '0')}${String((n % 27) + 1).padStart(2, '0')}`;
  const middle =
    material === 'BK' || material === 'PA'
      ? 'a   g      000 0 '
      : material === 'VI'
        ? '045 g          vl'
        : '000 g          rn';
  return `${entered}s${year}    ${country}${middle}${language} d`.padEnd(40).slice(0, 40);
}

const LEADER: Record<Material, string> = { BK: 'am', PA: 'am', VI: 'gm', PT: 'km', KT: 'om' };

/** Makes one record of the demo library. `spelling` chooses which form of a twice-spelled author it carries. */
export function makeRecord(
  random: Random,
  n: number,
  author: Author,
  secondAuthor: Author | null,
): MadeRecord {
  const topic = random.pick(TOPICS);
  const material = pickMaterial(random);
  const title = titleFor(random, topic);
  const year = random.between(1934, 2025);
  const [place, publisher] = random.pick(PUBLISHERS);
  const form = author.variant && random.chance(0.4) ? author.variant : author;
  const [extent, size] = EXTENTS[material](random);
  const isbn = year >= 1972 && (material === 'BK' || random.chance(0.3)) ? isbn10(n) : null;
  const statement = `${form.name.split(', ').reverse().join(' ')}${secondAuthor ? ` and ${secondAuthor.name.split(', ').reverse().join(' ')}` : ''}.`;
  const fields: Field[] = [
    { tag: '001', value: `wick${String(n).padStart(6, '0')}` },
    { tag: '003', value: 'WickRC' },
    { tag: '008', value: fixedField(n, year, COUNTRIES[place] ?? 'enk', 'eng', material) },
  ];
  if (isbn)
    fields.push(
      field(
        '020',
        '  ',
        'a',
        year >= 2007 || random.chance(0.3) ? isbn13From(isbn) : isbn,
        ...(random.chance(0.2) ? ['q', 'paperback'] : []),
      ),
    );
  fields.push(field('040', '  ', 'a', 'WickRC', 'b', 'eng', 'c', 'WickRC'));
  fields.push(field('082', '04', 'a', classFor(random, topic), '2', '23'));
  fields.push(field('100', '1 ', ...nameParts(form, 'author.')));
  fields.push(
    field(
      '245',
      `1${title.skip}`,
      'a',
      title.b ? `${title.a} :` : `${title.a} /`,
      ...(title.b ? ['b', `${title.b} /`] : []),
      'c',
      statement,
    ),
  );
  if (random.chance(0.15))
    fields.push(
      field(
        '250',
        '  ',
        'a',
        random.pick(['Second edition.', 'Revised edition.', 'Third edition, enlarged.']),
      ),
    );
  fields.push(field('264', ' 1', 'a', `${place} :`, 'b', `${publisher},`, 'c', yearText(year, random)));
  fields.push(
    field('300', '  ', 'a', extent, ...(extent.endsWith(':') ? ['b', 'illustrations ;'] : []), 'c', size),
  );
  if (random.chance(0.12))
    fields.push(
      field(
        '490',
        '0 ',
        'a',
        random.pick(['Wickmere papers ;', 'Plain crafts for plain people ;', 'Fenland trades ;']),
        'v',
        String(random.between(1, 40)),
      ),
    );
  if (random.chance(0.5)) fields.push(field('500', '  ', 'a', random.pick(NOTES)));
  fields.push(...subjectsFor(random, topic));
  if (secondAuthor) fields.push(field('700', '1 ', ...nameParts(secondAuthor, 'author.')));
  if (random.chance(0.18))
    fields.push(field('710', '2 ', 'a', `${random.pick(BODIES)},`, 'e', 'issuing body.'));
  if (random.chance(0.05)) fields.push(field('856', '41', 'u', platesAt(n), 'y', 'Plates'));
  return {
    marc: {
      leader: `00000c${LEADER[material]} a2200000 i 4500`,
      fields: traced(n, spoil(random, fields), form),
    },
    material,
    topic,
  };
}

const GENRES = ['Handbooks and manuals', 'Pattern books', 'Exhibition catalogs', 'Trade catalogs'];
/** How a few records write the terms: as somebody typed them. */
const TYPED_GENRES = ['Handbooks & manuals', 'Pattern books.', 'Exhibition catalogues', 'Trade catalogs'];

/** Headings beside names and subjects, by the number of the record: series that are traced, genres, works of the same author in it. */
function traced(n: number, fields: Field[], author: { name: string; dates: string }): Field[] {
  const more: Field[] = [];
  if (n % 4 === 0)
    more.push(field('655', ' 7', 'a', (n % 52 ? GENRES : TYPED_GENRES)[(n / 4) % 4]!, '2', 'lcgft'));
  if (n % 30 === 7) {
    const name = nameParts(author, 'author.').slice(0, -2);
    const end = name.pop()!.replace(/,$/, '');
    more.push(
      field('700', '12', ...name, /[-.]$/.test(end) ? end : `${end}.`, 't', 'Letters to a workshop.'),
    );
  }
  const withSeries = fields.flatMap((f): Field[] => {
    if (f.tag !== '490' || !('subfields' in f) || n % 3 === 0) return [f];
    const [a = '', v = ''] = f.subfields.map((s) => s.value);
    more.push(field('830', ' 0', 'a', n % 20 === 1 ? a.replace(' ;', ', new series ;') : a, 'v', `${v}.`));
    return [{ ...f, ind1: '1' }];
  });
  return [...withSeries, ...more].sort((a, b) => Number(a.tag.slice(0, 1)) - Number(b.tag.slice(0, 1)));
}

/** Where the plates of a book are: on the simulated site, where most links work and some have come to grief. */
function platesAt(n: number): string {
  const fate = n % 9 === 0 ? ['gone', 'moved', 'slow', 'looping', 'faulty', 'fine'][(n / 9) % 6] : 'fine';
  const site =
    n % 9 === 0 && (n / 9) % 6 === 5 ? 'https://unsafe.wickmere.example' : 'http://wickmere.example';
  return `${site}/${fate}?plates=${n}`;
}

function pickMaterial(random: Random): Material {
  const at = random.next();
  return at < 0.7 ? 'BK' : at < 0.86 ? 'PA' : at < 0.92 ? 'VI' : at < 0.97 ? 'PT' : 'KT';
}

export function nameParts(author: { name: string; dates: string }, relator: string): string[] {
  const end = (text: string) => (/[-.]$/.test(text) ? text : `${text},`);
  return author.dates
    ? ['a', `${author.name},`, 'd', end(author.dates), 'e', relator]
    : ['a', end(author.name), 'e', relator];
}

/** Most classes as the house cuts them; some as others deliver them, with prime marks or all their digits. */
function classFor(random: Random, topic: Topic): string {
  const at = random.next();
  const [whole, decimals = ''] = topic.dewey.split('.') as [string, string?];
  if (at < 0.72 || decimals === '') return decimals ? `${whole}.${decimals.slice(0, 2)}` : whole;
  return at < 0.86 ? `${whole}.${decimals}/09${random.between(410, 429)}` : topic.dewey;
}

function subjectsFor(random: Random, topic: Topic): Field[] {
  const fields: Field[] = [];
  const place = random.pick(PLACES);
  const form = random.next();
  if (form < 0.3) fields.push(field('650', ' 0', 'a', topic.subject, 'v', 'Handbooks, manuals, etc.'));
  else if (form < 0.5) fields.push(field('650', ' 0', 'a', topic.subject, 'z', place, 'x', 'History.'));
  else fields.push(field('650', ' 0', 'a', `${topic.subject}.`));
  if (random.chance(0.5)) fields.push(field('650', ' 0', 'a', `${random.pick(topic.also)}.`));
  if (random.chance(0.12)) fields.push(field('651', ' 0', 'a', place, 'x', 'Social life and customs.'));
  return fields;
}

/** A believable share of what goes wrong: subjects twice, capitals after the article, subdivisions for children. */
function spoil(random: Random, fields: Field[]): Field[] {
  const at = random.next();
  const title = fields.findIndex((f) => f.tag === '245');
  const subject = fields.find((f) => f.tag === '650');
  if (at < 0.03 && subject && 'subfields' in subject) {
    const [first, ...rest] = subject.subfields;
    return [
      ...fields,
      { ...subject, subfields: [{ ...first!, value: first!.value.toLowerCase() }, ...rest] },
    ];
  }
  if (at < 0.06) return [...fields, field('650', ' 1', 'a', 'Handicraft', 'v', 'Juvenile literature.')];
  if (at < 0.1) {
    const f = fields[title]!;
    if (!('subfields' in f) || f.ind2 === '0') return fields;
    const skip = Number(f.ind2);
    const a = f.subfields[0]!.value;
    const spoiled = {
      ...f,
      subfields: [
        { code: 'a', value: a.slice(0, skip) + a[skip]!.toUpperCase() + a.slice(skip + 1) },
        ...f.subfields.slice(1),
      ],
    };
    return fields.map((x, i) => (i === title ? spoiled : x));
  }
  if (at < 0.12)
    return fields.map((x, i) =>
      i === title && 'subfields' in x ? { ...x, ind2: x.ind2 === '0' ? '4' : '0' } : x,
    );
  return fields;
}

/** The books in other languages, with 880 for those in other scripts. */
export function makeForeign(random: Random, n: number, book: ForeignBook): MadeRecord {
  const topic = TOPICS[book.topic]!;
  const names = FOREIGN_NAMES[book.language] as readonly string[];
  const name = book.romanName ?? random.pick(names);
  const year = random.between(1988, 2024);
  const nameInOriginal = book.original
    ? names[
        [...FOREIGN, ...EAST_ASIAN]
          .filter((f) => f.language === book.language)
          .findIndex((f) => f.original === book.original)
      ]
    : undefined;
  const link = (to: string) => (book.original ? ['6', `880-${to}`] : []);
  const fields: Field[] = [
    { tag: '001', value: `wick${String(n).padStart(6, '0')}` },
    { tag: '003', value: 'WickRC' },
    { tag: '008', value: fixedField(n, year, book.country, book.language, 'BK') },
    field('020', '  ', 'a', isbn13From(isbn10(n))),
    field('040', '  ', 'a', 'WickRC', 'b', 'eng', 'c', 'WickRC'),
    field('082', '04', 'a', classFor(random, topic), '2', '23'),
    field('100', '1 ', ...link('01'), ...nameParts({ name, dates: '' }, 'author.')),
    field(
      '245',
      `1${book.skip}`,
      ...link('02'),
      'a',
      `${book.title} /`,
      'c',
      `${name.split(', ').reverse().join(' ')}.`,
    ),
    field('264', ' 1', 'a', `${book.place} :`, 'b', `${book.publisher},`, 'c', `${year}.`),
    field('300', '  ', 'a', `${random.between(80, 300)} pages :`, 'b', 'illustrations ;', 'c', '24 cm'),
    field('546', '  ', 'a', book.original ? 'In the original script.' : 'Text in the original language.'),
    ...subjectsFor(random, topic),
  ];
  if (book.original && nameInOriginal) {
    fields.push(field('880', '1 ', '6', `100-01/${book.script}`, 'a', `${nameInOriginal},`, 'e', 'author.'));
    fields.push(
      field(
        '880',
        `1${book.skip}`,
        '6',
        `245-02/${book.script}`,
        'a',
        `${book.original} /`,
        'c',
        `${nameInOriginal.split(', ').reverse().join(' ')}.`,
      ),
    );
  }
  return { marc: { leader: '00000cam a2200000 i 4500', fields }, material: 'BK', topic };
}

/** A second record of a book, as it comes about: made by somebody else, with its ISBN in the other form and less in it. */
export function secondRecordOf({ marc, material, topic }: MadeRecord, n: number): MadeRecord {
  const fields = marc.fields.flatMap((f): Field[] => {
    if (f.tag === '001' && 'value' in f) return [{ ...f, value: `wick${String(n).padStart(6, '0')}` }];
    if (f.tag === '020' && 'subfields' in f)
      return [
        field(
          '020',
          '  ',
          'a',
          (f.subfields[0]?.value ?? '').replace(/^(\d{3})(\d)(\d{3})(\d{5})/, '$1-$2-$3-$4-'),
        ),
      ];
    if (/^(250|336|337|338|490|504|700|655)$/.test(f.tag)) return [];
    if (f.tag === '300') return [field('300', '  ', 'a', 'pages cm')];
    return [f];
  });
  fields.push(field('520', '  ', 'a', 'Described again from the second copy.'));
  return {
    marc: { ...marc, fields: fields.sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : 0)) },
    material,
    topic,
  };
}
