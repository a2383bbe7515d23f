import data from './marc8-tables.json';

/** A MARC-8 character set, keyed by its escape final byte (MARC 21 Specifications: Character Sets, part 2). */
export interface Marc8Set {
  readonly code: number;
  readonly toUnicode: ReadonlyMap<number, string>;
  readonly combining: ReadonlySet<number>;
}

const BASIC_SETS = [0x42, 0x45, 0x32, 0x33, 0x34, 0x4e, 0x51, 0x53, 0x62, 0x67, 0x70];
/** East Asian Character Code: three bytes a character. */
export const EACC = 0x31;
export const ASCII = 0x42;
export const ANSEL = 0x45;

const sets = new Map<number, Marc8Set>();

/** The table of a character set, or undefined for a final byte that MARC-8 does not use. */
export function marc8Set(final: number): Marc8Set | undefined {
  if (!BASIC_SETS.includes(final) && final !== EACC) return undefined;
  let set = sets.get(final);
  if (!set) {
    const source = (data.sets as Record<string, { codes: string; combining: string }>)[hex(final)]!;
    const toUnicode = new Map<number, string>();
    for (const pair of source.codes.split(' ')) {
      const [marc, ucs] = pair.split('=') as [string, string];
      toUnicode.set(parseInt(marc, 16), String.fromCodePoint(parseInt(ucs, 16)));
    }
    const combining = new Set(
      source.combining
        .split(' ')
        .filter(Boolean)
        .map((c) => parseInt(c, 16)),
    );
    set = { code: final, toUnicode, combining };
    sets.set(final, set);
  }
  return set;
}

const hex = (n: number) => n.toString(16).toUpperCase().padStart(2, '0');
