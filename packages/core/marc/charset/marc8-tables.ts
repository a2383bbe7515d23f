import data from './marc8-tables.json';

/** A MARC-8 character set, keyed by its escape final byte (MARC 21 Specifications: Character Sets, part 2). */
export interface Marc8Set {
  readonly code: number;
  /** By the seven low bits of each byte, since any set can be designated as G0 or G1. */
  readonly toUnicode: ReadonlyMap<number, string>;
  readonly combining: ReadonlySet<number>;
  /** The other way, by NFC character: its code, and whether it is a mark that stands before its base. */
  readonly toMarc8: ReadonlyMap<string, { readonly code: number; readonly combining: boolean }>;
}

/** East Asian Character Code: three bytes a character. */
export const EACC = 0x31;
/** Final character of the escape sequence to Basic Latin (MARC-8). */
export const ASCII = 0x42;
/** To Extended Latin. */
export const ANSEL = 0x45;
/** To subscripts. */
export const SUBSCRIPT = 0x62;
/** To Greek symbols. */
export const GREEK_SYMBOLS = 0x67;
/** To superscripts. */
export const SUPERSCRIPT = 0x70;
/** Hebrew, Basic Arabic, Extended Arabic, Basic Cyrillic, Extended Cyrillic, Basic Greek. */
export const SCRIPTS = [0x4e, 0x51, 0x53, 0x32, 0x33, 0x34] as const;
const KNOWN: readonly number[] = [ASCII, ANSEL, ...SCRIPTS, SUBSCRIPT, GREEK_SYMBOLS, SUPERSCRIPT, EACC];

/** The table of a character set, or undefined for a final byte that MARC-8 does not use. */
export type Marc8Tables = (final: number) => Marc8Set | undefined;

/** The tables of all sets, each made when it is first asked for: to be kept as long as text is read or written. */
export function marc8Tables(): Marc8Tables {
  const sets = new Map<number, Marc8Set>();
  return (final) => {
    if (!KNOWN.includes(final)) return undefined;
    let set = sets.get(final);
    if (!set) sets.set(final, (set = load(final)));
    return set;
  };
}

function load(final: number): Marc8Set {
  const mask = final === EACC ? 0x7f7f7f : 0x7f;
  const source = (data.sets as Record<string, { codes: string; combining: string }>)[hex(final)]!;
  const combining = new Set(
    source.combining
      .split(' ')
      .filter(Boolean)
      .map((c) => parseInt(c, 16) & mask),
  );
  const toUnicode = new Map<number, string>();
  const toMarc8 = new Map<string, { code: number; combining: boolean }>();
  const composedForms: [string, number][] = [];
  for (const pair of source.codes.split(' ')) {
    const [marc, ucs] = pair.split('=') as [string, string];
    const code = parseInt(marc, 16) & mask;
    const char = String.fromCodePoint(parseInt(ucs, 16));
    toUnicode.set(code, char);
    if (!isGraphic(code)) continue;
    if (!toMarc8.has(char)) toMarc8.set(char, { code, combining: combining.has(code) });
    if (char.normalize('NFC') !== char) composedForms.push([char.normalize('NFC'), code]);
  }
  for (const [char, code] of composedForms)
    if (!toMarc8.has(char)) toMarc8.set(char, { code, combining: combining.has(code) });
  return { code: final, toUnicode, combining, toMarc8 };
}

/** Codes with a byte that is no graphic character can be read but are not written. */
const isGraphic = (code: number) =>
  code <= 0x7f || [code >> 16, (code >> 8) & 0x7f, code & 0x7f].every((b) => b > 0x20 && b < 0x7f);
const hex = (n: number) => n.toString(16).toUpperCase().padStart(2, '0');
