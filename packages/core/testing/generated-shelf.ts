import { checkDigit } from '../barcodes';
import { byKey, schemeNamed, shelfKeyOf } from '../callnumbers';

/** Numbers from 0 to below 1 that follow from a seed (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** A copy of a generated library. */
export interface GeneratedCopy {
  readonly barcode: string;
  readonly callNumber: string;
  readonly scheme: 'ddc' | 'lcc' | 'local';
  readonly author: string;
  readonly title: string;
  readonly branch: string;
  readonly location: string;
  readonly status: string;
  readonly lastSeen: string;
}

/** A walk through two locations of a generated library, with what was done to it. */
export interface GeneratedShelf {
  readonly copies: readonly GeneratedCopy[];
  readonly lines: readonly string[];
  readonly sections: readonly { location: string; first_line: number; last_line: number; order: string }[];
  /** Barcodes of copies that were taken away one by one, and of those of a shelf that was walked past. */
  readonly taken: readonly string[];
  readonly passed: readonly string[];
}

const AUTHORS = [
  'Åkesson, Märta',
  'Reedman, Ann',
  "O'Hara, Finn",
  'Holm, Jens',
  'Abel, Ida',
  'Łoś, Jan',
  'Holm, Åse',
];
const TITLES = ['Willow craft', 'The eels', 'Über Körbe', 'Coracles', 'A history of rush', 'Basketry'];
const AWAY = ['on loan', 'lost', 'missing', 'in transit', 'in repair', 'withdrawn'];

/** The barcode of 14 digits with a serial number. */
const barcodeOf = (prefix: string, serial: number): string => {
  const digits = prefix + String(serial).padStart(13 - prefix.length, '0');
  return digits + checkDigit(digits);
};

/**
 * A library of some copies and a walk through its open shelves and reading room: copies taken, misshelved one by one and as blocks, swapped
 * with their neighbour, in the wrong room, of another branch; statuses that are wrong; codes doubled, misread in every way, framed,
 * read off the cover or a reader's card; blank lines; a shelf passed by.
 */
export function generatedShelf(size: number, seed: number, tenth = false): GeneratedShelf {
  const random = seeded(seed);
  const below = (n: number) => Math.floor(random() * n);
  const one = <T>(of: readonly T[]): T => of[below(of.length)]!;
  const copies: GeneratedCopy[] = [];
  let serial = 40_000;
  for (let i = 0; i < size; i++) {
    serial += 1 + below(3);
    const place = random();
    const [branch, location] =
      place < 0.55
        ? ['HILL', 'OPEN']
        : place < 0.8
          ? ['HILL', 'READ']
          : place < 0.9
            ? ['HILL', 'STACK']
            : ['DALE', 'OPEN'];
    const scheme = location === 'READ' ? (random() < 0.8 ? 'lcc' : 'local') : 'ddc';
    const end = random() < 0.1 ? ` v.${1 + below(12)}` : random() < 0.1 ? ` c.${1 + below(3)}` : '';
    const author = one(AUTHORS);
    const mark = author.slice(0, 3).toUpperCase();
    const number = {
      ddc: `${500 + below(100)}${random() < 0.7 ? `.${1 + below(99)}` : ''} ${mark}`,
      lcc: `QA${1 + below(99)}${random() < 0.5 ? `.${1 + below(99)}` : ''} .${one([...'ABPS'])}${1 + below(99)} ${1990 + below(30)}`,
      local: `FIC ${mark}`,
    }[scheme];
    copies.push({
      barcode: barcodeOf('31204', serial),
      callNumber: random() < 0.005 ? 'see desk' : number + end,
      scheme,
      ...{ author, title: one(TITLES), branch, location },
      status: random() < 0.12 ? one(AWAY) : 'available',
      lastSeen: random() < 0.05 ? '2026-03-10' : '2025-11-02',
    });
  }
  return { copies, ...walked(copies, random, below, one, tenth) };
}

function walked(
  copies: readonly GeneratedCopy[],
  random: () => number,
  below: (n: number) => number,
  one: <T>(of: readonly T[]) => T,
  tenth: boolean,
): Omit<GeneratedShelf, 'copies'> {
  const lines: string[] = [];
  const sections: { location: string; first_line: number; last_line: number; order: string }[] = [];
  const [taken, passed]: [string[], string[]] = [[], []];
  const strangers = copies.filter((c) => c.branch !== 'HILL' || c.location === 'STACK');
  const bad = (code: string): string => {
    const at = below(code.length - 1);
    const kind = below(3);
    if (kind === 0) return code.slice(0, at) + code.slice(at + 1);
    if (kind === 1)
      return code.slice(0, at) + String((Number(code[at]) + 1 + below(9)) % 10) + code.slice(at + 1);
    return code.slice(0, at) + code[at + 1]! + code[at]! + code.slice(at + 2);
  };
  for (const [location, order] of [
    ['OPEN', one(['call', 'call+author', 'call+author+title'])],
    ['READ', one(['call', 'call+author+title'])],
  ] as const) {
    const own = copies
      .filter((c) => c.branch === 'HILL' && c.location === location)
      .map((c) => ({ c, key: shelfKeyOf(c.callNumber, schemeNamed(c.scheme) ?? 'own') }))
      .sort((a, b) => byKey(a.key, b.key))
      .map(({ c }) => c);
    const standing: GeneratedCopy[] = [];
    for (let i = 0; i < own.length; i++) {
      const copy = own[i]!;
      const length = 5 + below(9);
      if (random() < 12 / (copies.length + 400) && i + length < own.length) {
        passed.push(...own.slice(i, i + length).map((c) => c.barcode));
        i += length - 1;
      } else if (copy.status !== 'available' && random() < 0.8) continue;
      else if (random() < 0.02) taken.push(copy.barcode);
      else standing.push(copy);
    }
    for (let n = Math.ceil(standing.length / 60); n > 0 && standing.length > 3; n--) {
      const block = standing.splice(below(standing.length), 1 + below(3));
      standing.splice(below(standing.length), 0, ...block);
      const at = below(standing.length - 1);
      if (random() < 0.5) standing.splice(at, 2, standing[at + 1]!, standing[at]!);
      if (strangers.length) standing.splice(below(standing.length), 0, one(strangers));
      if (random() < 0.3) standing.splice(below(standing.length), 0, one(copies));
    }
    const first = lines.length + 1;
    for (const { barcode } of tenth ? standing.slice(0, Math.ceil(standing.length / 10)) : standing) {
      const chance = random();
      if (chance < 0.03) lines.push(bad(barcode));
      if (chance >= 0.01) lines.push(barcode);
      if (chance > 0.03 && chance < 0.05) lines.push(barcode);
      if (chance > 0.05 && chance < 0.08)
        lines.push(one([`*${barcode}*`, ` a${barcode}b\r`, `${barcode.slice(0, 5)} ${barcode.slice(5)}\t`]));
      if (chance > 0.99)
        lines.push(
          one([
            '9780306406157',
            barcodeOf('21204', below(9999)),
            barcodeOf('39999', below(9999)),
            '',
            'XX-1',
            '312',
          ]),
        );
    }
    sections.push({ location, order, first_line: first, last_line: lines.length });
    // A line between two sections belongs to none.
    lines.push(barcodeOf('31204', 40_001));
  }
  return { lines, sections, taken, passed };
}
