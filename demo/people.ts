import type { Random } from './random';
import { FORENAMES, SURNAMES } from './names';

/** An invented author, and a second spelling under which some of the books were catalogued. */
export interface Author {
  readonly name: string;
  readonly dates: string;
  readonly variant: { readonly name: string; readonly dates: string } | null;
}

export const DUPLICATES = 40;

/** Authors; the first forty have a second spelling, and a few later ones share a name with another person. */
export function makeAuthors(random: Random, count: number): Author[] {
  const authors: Author[] = [];
  const used = new Set<string>();
  while (authors.length < count) {
    const surname = random.pick(SURNAMES);
    const given = random.pick(FORENAMES);
    const first = random.pick(given);
    const other = random.pick(given);
    const second = random.chance(0.45) && other !== first ? other : '';
    // One bearer of surname and initial each, so that look-alikes are the planted ones.
    if (used.has(`${surname}${first[0]}`)) continue;
    used.add(`${surname}${first[0]}`);
    const born = random.between(1840, 1985);
    const died = born < 1930 ? String(born + random.between(48, 92)) : '';
    const dates = random.chance(0.6) || authors.length < DUPLICATES ? `${born}-${died}` : '';
    const name = `${surname}, ${first}${second ? ` ${second}` : ''}`;
    authors.push({
      name,
      dates,
      variant: authors.length < DUPLICATES ? variantOf(authors.length, surname, first, second, dates) : null,
    });
  }
  // Two people of one name: the dates keep them apart.
  for (let i = 0; i < 4; i++) {
    const other = authors[DUPLICATES + 10 + i * 7]!;
    authors.push({ name: other.name, dates: `${1760 + i * 11}-${1822 + i * 9}`, variant: null });
    if (other.dates === '') authors[DUPLICATES + 10 + i * 7] = { ...other, dates: `${1950 + i}-` };
  }
  return authors;
}

function variantOf(
  n: number,
  surname: string,
  first: string,
  second: string,
  dates: string,
): { name: string; dates: string } {
  const initial = (name: string) => `${name[0]}.`;
  switch (n % 5) {
    case 0:
      return { name: `${surname}, ${initial(first)}${second ? ` ${initial(second)}` : ''}`, dates: '' };
    case 1:
      return { name: `${surname}, ${first}${second ? ` ${initial(second)}` : ''}`, dates: '' };
    case 2:
      return { name: `${misspelt(surname)}, ${first}${second ? ` ${second}` : ''}`, dates };
    case 3:
      return { name: `${surname}, ${first}`, dates: second ? dates : '' };
    default:
      return { name: `${surname}, ${initial(first)}${second ? ` ${initial(second)}` : ''}`, dates };
  }
}

/** The surname with one letter doubled or left out, as a hurried hand writes it. */
function misspelt(surname: string): string {
  const double = /([a-z])\1/.exec(surname);
  if (double) return surname.replace(double[0], double[1]!);
  const at = Math.floor(surname.length / 2);
  return surname.slice(0, at) + surname[at] + surname.slice(at);
}
