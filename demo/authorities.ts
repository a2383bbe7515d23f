import { field, writeIso2709, type DataField, type MarcRecord } from '@osier/core/marc';
import { join } from './damage';
import { makeAuthors, type Author } from './people';
import { randomFrom } from './random';

/** Who establishes names for the Wickmere Institute and its neighbours. */
export const REGISTRY = 'WickReg';

/** 008 of an authority record: an established heading, a name, differentiated, full (MARC 21 Authority, 008). */
const FIXED = '260105n||aznnnaabn           a aaa     c';

const form = (tag: string, name: string, dates: string): DataField => ({
  ...{ tag, ind1: '1', ind2: ' ' },
  subfields: dates
    ? [
        { code: 'a', value: `${name},` },
        { code: 'd', value: dates },
      ]
    : [{ code: 'a', value: name }],
});

const initials = (name: string): string =>
  name.replace(
    /, (.+)$/,
    (_, given: string) =>
      `, ${given
        .split(' ')
        .map((g) => `${g[0]}.`)
        .join(' ')}`,
  );

/** The authority record of an invented author: a number, the forms, sources. */
export function authorityOf(author: Author, n: number): MarcRecord {
  const other = author.variant ?? { name: initials(author.name), dates: author.dates };
  return {
    leader: '00000cz  a2200000n  4500',
    fields: [
      { tag: '001', value: `wr${String(n).padStart(6, '0')}` },
      { tag: '003', value: REGISTRY },
      { tag: '008', value: FIXED },
      field('040', '  ', 'a', REGISTRY, 'b', 'eng', 'c', REGISTRY),
      form('100', author.name, author.dates),
      ...(author.dates.match(/^\d{4}-\d{4}$/)
        ? [field('046', '  ', 'f', author.dates.slice(0, 4), 'g', author.dates.slice(5), '2', 'edtf')]
        : []),
      form('400', other.name, other.dates),
      field('670', '  ', 'a', `Lives and works of the river crafts, no. ${n}`),
    ].sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : 0)),
  };
}

/** A file of the registry: names that the library has, some in another form, and what does not belong among them. */
export function authorityFile(): Uint8Array {
  const authors = makeAuthors(randomFrom(46_001), 480);
  const records = authors
    .filter((_, i) => i % 4 === 0)
    .map((a, i) => {
      // Some have died since.
      const ended = i % 11 === 5 && a.dates.endsWith('-') ? `${a.dates}2024` : a.dates;
      return authorityOf({ ...a, dates: ended }, i + 1);
    });
  const [first] = records;
  const odd: MarcRecord[] = [
    { ...first!, fields: first!.fields.filter((f) => !/^[14]00$/.test(f.tag)) },
    {
      ...first!,
      fields: first!.fields.map((f) =>
        f.tag === '008' ? { tag: '008', value: FIXED.replace('||a', '||b') } : f,
      ),
    },
    first!,
    {
      leader: '00000nam a2200000 i 4500',
      fields: [{ tag: '001', value: 'wr900001' }, field('245', '10', 'a', 'A handbook of names')],
    },
    {
      ...authorityOf({ name: 'Nobody, Never', dates: '', variant: null }, 990),
      leader: '00000dz  a2200000n  4500',
    },
  ];
  return join(...[...records, ...odd].map((r) => writeIso2709(r)));
}
