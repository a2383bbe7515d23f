import { field, type MarcRecord } from '@osier/core/marc';
import { makeAuthors, type Author } from './people';
import { randomFrom } from './random';

/** The name under which the simulated registry is found; a setting says where it is. */
export const REGISTRY_HOST = 'registry.wickmere.example';
/** The registry of names that the Wickmere Institute asks. */
export const REGISTRY = {
  name: 'Fenland Registry of Names',
  address: `http://${REGISTRY_HOST}/names`,
  agency: 'FRN',
};

/** So many of the library's authors are in it: not all. */
const NAMES = 320;

/** The authority records of the simulated registry: forms with their dates, other forms, sources, and how many members use which. */
export function registryNames(): MarcRecord[] {
  const authors = makeAuthors(randomFrom(46_001), 480);
  const random = randomFrom(46_900);
  return authors.slice(0, NAMES).map((author, i): MarcRecord => {
    const born = Number(author.dates.slice(0, 4)) || random.between(1850, 1970);
    const dates = author.dates || `${born}-${born < 1925 ? born + random.between(50, 90) : ''}`;
    const others = otherForms(author);
    const most = random.between(4, 60);
    return {
      leader: '00000nz  a2200000n  4500',
      fields: [
        { tag: '001', value: `frn${String(i + 1).padStart(6, '0')}` },
        { tag: '003', value: REGISTRY.agency },
        { tag: '008', value: '260115n| azannaabn          |a aaa      ' },
        field('040', '  ', 'a', REGISTRY.agency, 'b', 'eng', 'e', 'rda'),
        ...(/^\d{4}-/.test(dates)
          ? [field('046', '  ', 'f', dates.slice(0, 4), ...(dates.slice(5) ? ['g', dates.slice(5)] : []))]
          : []),
        field('100', '1 ', 'a', `${author.name},`, 'd', dates),
        ...others.map((form) => field('400', '1 ', 'a', form)),
        field('670', '  ', 'a', `Osmere printers, 1998: page ${random.between(3, 300)} (${author.name})`),
        field('990', '  ', 'a', `${author.name}, ${dates}`, 'n', String(most)),
        ...others
          .slice(0, 2)
          .map((form) =>
            field('990', '  ', 'a', form, 'n', String(random.between(1, Math.max(1, most - 2)))),
          ),
      ],
    };
  });
}

/** Forms under which a name is known too: with initials, and as the library has spelt it a second time. */
function otherForms({ name, variant }: Author): string[] {
  const [surname = '', given = ''] = name.split(', ');
  const initials = given
    .split(' ')
    .map((g) => `${g[0]}.`)
    .join(' ');
  const forms = [`${surname}, ${initials}`, ...(variant ? [variant.name] : []), `${given} ${surname}`];
  return [...new Set(forms)].filter((f) => f !== name);
}
