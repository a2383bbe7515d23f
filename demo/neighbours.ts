import { isbns } from '@osier/core/access';
import { dataFields, field, isData, type Field, type MarcRecord } from '@osier/core/marc';
import { NEW_NEIGHBOUR, type Neighbour } from '@osier/core/neighbours';
import type { Library } from './library';
import { isbn10, makeRecord } from './make-record';
import { makeAuthors } from './people';
import { randomFrom } from './random';

/** The names under which the simulated neighbours are found; a setting says where they are. */
export const NEIGHBOUR_HOST = 'neighbours.wickmere.example';
const at = (path: string) => `http://${NEIGHBOUR_HOST}/${path}`;

/** Four libraries that the Wickmere Institute copies from, in the order in which it asks them. */
export const NEIGHBOURS: readonly Neighbour[] = [
  {
    ...NEW_NEIGHBOUR,
    name: 'National Library of the Fens',
    address: at('national'),
    version: '1.2',
    order: 1,
    trust: 5,
    seconds: 8,
  },
  {
    ...NEW_NEIGHBOUR,
    name: 'Osmere Valley Libraries',
    address: at('regional'),
    version: '2.0',
    order: 2,
    trust: 3,
    seconds: 5,
  },
  {
    ...NEW_NEIGHBOUR,
    name: 'Hurst Lane School',
    address: at('school'),
    version: '1.1',
    order: 3,
    trust: 2,
    seconds: 3,
    materials: ['Books'],
  },
  {
    ...NEW_NEIGHBOUR,
    name: 'Drove End Exchange',
    address: at('failing'),
    version: '1.1',
    order: 4,
    trust: 1,
    seconds: 3,
  },
];

/** The records of the simulated neighbours by the path under which each is found. */
export type NeighbourShelves = Readonly<
  Record<'national' | 'regional' | 'school' | 'failing', readonly MarcRecord[]>
>;

const BOOKS = 420;
/** Numbers behind those of the library’s own books and of its deliveries. */
const FIRST = 600_000;

/** Books that the library has not, with some that it has; each neighbour has a part of them in its own manner. */
export function neighbourShelves(library: Library): NeighbourShelves {
  const random = randomFrom(46_777);
  const authors = makeAuthors(randomFrom(46_001), 480);
  const books = Array.from({ length: BOOKS }, (_, i) =>
    withIsbn(makeRecord(random, FIRST + i, random.pick(authors), null).marc, FIRST + i),
  );
  const held = library.records
    .filter((r) => isbns(r.marc).length > 0)
    .slice(0, 40)
    .map((r) => r.marc);
  const shelves = {
    national: [] as MarcRecord[],
    regional: [] as MarcRecord[],
    school: [] as MarcRecord[],
    failing: [] as MarcRecord[],
  };
  [...books, ...held].forEach((book, i) => {
    if (i % 10 < 7) shelves.national.push(asNational(book, i));
    if (i % 10 < 3 || i % 10 === 7 || i % 10 === 8) shelves.regional.push(asRegional(book, i));
    if (i % 4 === 0 || i % 10 === 8) shelves.school.push(asSchool(book, i));
    if (i % 5 === 0) shelves.failing.push(book);
    // Another edition of some, which shares the title and not the number.
    if (i % 21 === 0) shelves.national.push(asNational(secondEdition(book, i), i + BOOKS));
  });
  return shelves;
}

/** ISBNs to scan: found at several, at one, here already, at none, and one with a wrong digit. */
export function booksToCatalogue(library: Library): string {
  const shelves = neighbourShelves(library);
  const numbers = (records: readonly MarcRecord[], from: number, many: number) =>
    records.flatMap((r) => isbns(r).slice(0, 1)).slice(from, from + many);
  const here = library.records.flatMap((r) => isbns(r.marc).slice(0, 1)).slice(0, 3);
  const unknown = [990_001, 990_002, 990_003].map(isbn10);
  const wrong = numbers(shelves.national, 30, 1).map(
    (n) => n.slice(0, 12) + String((Number(n[12]) + 4) % 10),
  );
  const all = [
    ...numbers(shelves.national, 0, 18),
    ...here,
    ...numbers(shelves.regional, 40, 8),
    ...unknown,
    ...numbers(shelves.school, 20, 6),
    ...wrong,
  ];
  return `${all.join('\r\n')}\r\n`;
}

const withIsbn = (marc: MarcRecord, n: number): MarcRecord =>
  dataFields(marc, '020').length
    ? marc
    : { ...marc, fields: inOrder([...marc.fields, field('020', '  ', 'a', isbn10(n))]) };

const inOrder = (fields: readonly Field[]): Field[] =>
  [...fields].sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : 0));
const without = (marc: MarcRecord, ...tags: readonly string[]): Field[] =>
  marc.fields.filter((f) => !tags.includes(f.tag));
const control = (number: string, organisation: string, changed: string): Field[] => [
  { tag: '001', value: number },
  { tag: '003', value: organisation },
  { tag: '005', value: `${changed}101010.0` },
];

/** A link to the made-up cover of a book. */
const coverLink = (marc: MarcRecord): Field[] =>
  isbns(marc)
    .slice(0, 1)
    .map((isbn) => field('856', '42', '3', 'Cover', 'u', at(`covers/${isbn}.png`)));

/** Full records with summaries, content types and two subject headings; slow to come. */
function asNational(marc: MarcRecord, n: number): MarcRecord {
  const title = dataFields(marc, '245')[0]?.subfields[0]?.value.replace(/\s*[:/]$/, '') ?? '';
  const own = without(marc, '001', '003', '040', '336', '337', '338', '520');
  return {
    leader: `${marc.leader.slice(0, 5)}c${marc.leader.slice(6, 17)} i 4500`.slice(0, 24),
    fields: inOrder([
      ...control(
        `nlf${String(n).padStart(7, '0')}`,
        'NLFens',
        `2024${String((n % 12) + 1).padStart(2, '0')}12`,
      ),
      ...own,
      field('040', '  ', 'a', 'NLFens', 'b', 'eng', 'e', 'rda', 'c', 'NLFens'),
      field('336', '  ', 'a', 'text', 'b', 'txt', '2', 'rdacontent'),
      field('337', '  ', 'a', 'unmediated', 'b', 'n', '2', 'rdamedia'),
      field('338', '  ', 'a', 'volume', 'b', 'nc', '2', 'rdacarrier'),
      field(
        '520',
        '  ',
        'a',
        `An account of ${title.charAt(0).toLowerCase()}${title.slice(1)}, with measurements and drawings.`,
      ),
      ...(n % 3 === 0 ? [field('504', '  ', 'a', 'Includes bibliographical references and index.')] : []),
      ...(n % 4 !== 3 ? coverLink(marc) : []),
      field('852', '8 ', 'a', 'NLFens', 'h', `XF.${1000 + n}`),
    ]),
  };
}

/** Sound records with call numbers of another scheme, some catalogued in another language. */
function asRegional(marc: MarcRecord, n: number): MarcRecord {
  const isForeign = n % 17 === 3;
  return {
    ...marc,
    fields: inOrder([
      ...control(`OV-${40_000 + n}`, 'OsmereV', `2019${String((n % 12) + 1).padStart(2, '0')}03`),
      ...without(marc, '001', '003', '040', '082', '520', '710'),
      field('040', '  ', 'a', 'OsmereV', 'b', isForeign ? 'fre' : 'eng', 'c', 'OsmereV'),
      field('084', '  ', 'a', `CRF ${String(n % 90).padStart(2, '0')}`, '2', 'osmere'),
      field('852', '  ', 'a', 'OsmereV', 'b', 'Town', 'h', `CRF ${n % 90}`, 'p', `40${900_000 + n}`),
      field('949', '  ', 'a', 'shelf-ready', 'x', String(n)),
    ]),
  };
}

/** Short records in capitals, with no subjects and now and then a wrong year. */
function asSchool(marc: MarcRecord, n: number): MarcRecord {
  const kept = marc.fields.filter((f) => ['008', '020', '100', '245', '264', '300'].includes(f.tag));
  return {
    leader: `${marc.leader.slice(0, 17)}3${marc.leader.slice(18)}`,
    fields: inOrder([
      ...control(String(n + 1), '', '20120901'),
      ...kept.map((f) => {
        if (!isData(f)) return f;
        if (f.tag === '245')
          return { ...f, subfields: f.subfields.map((s) => ({ ...s, value: s.value.toUpperCase() })) };
        if (f.tag === '300') return { ...f, subfields: f.subfields.slice(0, 1) };
        if (f.tag === '264' && n % 9 === 4)
          return {
            ...f,
            subfields: f.subfields.map((s) =>
              s.code === 'c' ? { ...s, value: s.value.replace(/\d{4}/, (y) => String(Number(y) + 1)) } : s,
            ),
          };
        return f;
      }),
    ]),
  };
}

function secondEdition(marc: MarcRecord, n: number): MarcRecord {
  const later = (text: string) => text.replace(/\d{4}/, (y) => String(Number(y) + 9));
  return {
    ...marc,
    fields: inOrder([
      ...without(marc, '020', '250').map((f): Field => {
        if (!isData(f))
          return f.tag === '008'
            ? { ...f, value: `${f.value.slice(0, 7)}${later(f.value.slice(7, 11))}${f.value.slice(11)}` }
            : f;
        return f.tag === '264'
          ? {
              ...f,
              subfields: f.subfields.map((s) => (s.code === 'c' ? { ...s, value: later(s.value) } : s)),
            }
          : f;
      }),
      field('020', '  ', 'a', isbn10(FIRST + 50_000 + n)),
      field('250', '  ', 'a', 'Second edition, revised.'),
    ]),
  };
}
