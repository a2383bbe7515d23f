import {
  ANSEL,
  ASCII,
  EACC,
  GREEK_SYMBOLS,
  marc8Tables,
  SCRIPTS,
  SUBSCRIPT,
  SUPERSCRIPT,
  type Marc8Tables,
} from './marc8-tables';

/** Sets are tried in this order; a set that is in force already comes first. */
const ORDER = [ASCII, ANSEL, ...SCRIPTS, SUPERSCRIPT, SUBSCRIPT, GREEK_SYMBOLS, EACC];
const CONTROLS: Record<string, number> = { '\u0098': 0x88, '\u009c': 0x89, '\u200d': 0x8d, '\u200c': 0x8e };
const DOUBLE_WIDTH: Record<string, readonly [number, number]> = {
  '\u0361': [0xeb, 0xec],
  '\u0360': [0xfa, 0xfb],
};
const ESC = 0x1b;

interface Code {
  readonly set: number;
  readonly code: number;
}

/**
 * Encodes text as MARC-8: marks before their base, G0 designated as needed and ASCII again at the end. What MARC-8
 * lacks is written as `&#xXXXX;` behind its base, the published lossless way (MARC 21 Specifications: Character Sets,
 * part 4), and so is an ampersand that would be read as the beginning of one. ANSEL stays in G1 throughout.
 * Where much is written, the tables are kept by who writes.
 */
export function encodeMarc8(text: string, tables: Marc8Tables = marc8Tables()): Uint8Array {
  const out: number[] = [];
  let g0 = ASCII;
  const designate = (set: number) => {
    if (set === ANSEL || set === g0) return;
    if (set === EACC) out.push(ESC, 0x24, EACC);
    else if (set === SUBSCRIPT || set === SUPERSCRIPT || set === GREEK_SYMBOLS) out.push(ESC, set);
    else if (g0 === SUBSCRIPT || g0 === SUPERSCRIPT || g0 === GREEK_SYMBOLS) {
      out.push(ESC, 0x73);
      if (set !== ASCII) out.push(ESC, 0x28, set);
    } else out.push(ESC, 0x28, set);
    g0 = set;
  };
  const put = ({ set, code }: Code) => {
    designate(set);
    if (set === ANSEL) out.push(code | 0x80);
    else if (set === EACC) out.push(code >> 16, (code >> 8) & 0x7f, code & 0x7f);
    else out.push(code);
  };
  const reference = (char: string) => {
    designate(ASCII);
    const digits = char.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0');
    for (const c of `&#x${digits};`) out.push(c.charCodeAt(0));
  };
  let owedHalf = 0;
  for (const { base, marks } of clusters(text, tables)) {
    if (base === '&#') {
      reference('&');
      out.push(0x23);
      continue;
    }
    if (base.charCodeAt(0) < 0x20 || base in CONTROLS || base === '\u007f') {
      if (base < ' ') designate(ASCII);
      out.push(CONTROLS[base] ?? base.charCodeAt(0));
      for (const mark of marks) reference(mark);
      continue;
    }
    const form = formOf(base, marks, g0, tables);
    if (owedHalf && form.code) out.push(owedHalf);
    owedHalf = 0;
    for (const mark of form.code ? form.before : []) {
      const double = DOUBLE_WIDTH[mark.char];
      if (double) {
        out.push(double[0]);
        owedHalf = double[1];
      } else put(mark.code);
    }
    if (form.code) put(form.code);
    else reference(base);
    for (const mark of form.after) reference(mark);
  }
  designate(ASCII);
  return Uint8Array.from(out);
}

/** Characters with the marks of the code tables behind them; `&#` of a would-be reference is one. */
function* clusters(text: string, tables: Marc8Tables): Iterable<{ base: string; marks: string[] }> {
  const composed = text.normalize('NFC');
  const charAt = (at: number) => String.fromCodePoint(composed.codePointAt(at)!);
  for (let i = 0; i < composed.length;) {
    LITERAL_REFERENCE.lastIndex = i;
    const base = LITERAL_REFERENCE.test(composed) ? '&#' : charAt(i);
    i += base.length;
    const marks: string[] = [];
    while (i < composed.length && isMark(charAt(i), tables)) {
      marks.push(charAt(i));
      i += charAt(i).length;
    }
    yield { base, marks };
  }
}

const LITERAL_REFERENCE = /&#x[0-9A-Fa-f]{4,6};/y;
/** Half marks are what the double-width codes once were in Unicode; written back they would read as halves. */
const HALVES = '\ufe20\ufe21\ufe22\ufe23';
const isMark = (char: string, tables: Marc8Tables) =>
  char in DOUBLE_WIDTH || lookUp(char, ASCII, tables)?.combining === true;

/** How a base and its marks are written: as one code, taken apart, or (marks, or all of it) as references. */
function formOf(base: string, marks: readonly string[], g0: number, tables: Marc8Tables) {
  let letter = base;
  let own: string[] = [];
  let code = lookUp(base, g0, tables);
  while (!code || code.combining) {
    const parts = [...letter.normalize('NFD')];
    const last = parts.pop()!;
    const rest = parts.join('').normalize('NFC');
    if (parts.length === 0 || !isMark(last, tables)) return { code: undefined, before: [], after: marks };
    own = [last, ...own];
    letter = rest;
    code = lookUp(letter, g0, tables);
  }
  const before: { char: string; code: Code }[] = [];
  const after: string[] = [];
  for (const char of [...own, ...marks]) {
    const found = lookUp(char, g0, tables);
    if (after.length === 0 && (char in DOUBLE_WIDTH || found)) before.push({ char, code: found ?? code });
    else after.push(char);
  }
  return { code, before, after };
}

function lookUp(char: string, g0: number, tables: Marc8Tables): (Code & { combining: boolean }) | undefined {
  if (HALVES.includes(char)) return undefined;
  for (const set of g0 === ASCII ? ORDER : [g0, ...ORDER]) {
    const found = tables(set)!.toMarc8.get(char);
    if (found) return { set, ...found };
  }
  return undefined;
}
