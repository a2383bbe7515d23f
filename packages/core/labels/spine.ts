import { readLc, type CallNumber } from '../callnumbers';

/** What stands on the spine of a copy. */
export interface SpineText extends CallNumber {
  readonly part?: string;
  /** 0 or 1: it is not told on the label. */
  readonly number: number;
}

/** How wide a text is in millimetres, as it will be set. */
export type Measure = (text: string) => number;

/** The lines of a spine label, and what does not fit as a sentence; null when all does. */
export interface SpineLines {
  readonly lines: readonly string[];
  readonly problem: string | null;
}

/** The parts of an LC or NLM number, a line each: letters, class with its decimals, cutters, what follows. */
function lcParts(text: string): string[] {
  const lc = readLc(text);
  if (!lc) return [text];
  const number = lc.whole + (lc.decimal ? `.${lc.decimal}` : '');
  // A point stands before the first cutter alone, wherever a year comes between.
  const first = lc.behind.find((p) => p.kind === 'cutter');
  return [lc.letters, number, ...lc.behind.map((p) => (p === first ? `.${p.text}` : p.text))].filter(Boolean);
}

/** Places at which a part may be cut when it is too wide, the best first: a point, a stroke or a hyphen, then a blank. */
const CUTS = [/(?=\.)/, /(?<=[/-])/, /\s+/];

/** A part in lines that fit: whole, else cut where it may be; null when a piece of it fits nowhere. */
function linesOf(part: string, fits: (text: string) => boolean): string[] | null {
  if (fits(part)) return [part];
  for (const cut of CUTS) {
    const pieces = part.split(cut).filter(Boolean);
    if (pieces.length < 2) continue;
    const lines = pieces.map((piece) => linesOf(piece, fits));
    if (lines.every((l) => l !== null)) return joined(lines.flat(), fits, cut === CUTS[2] ? ' ' : '');
  }
  return null;
}

/** Pieces put together again as far as they fit. */
const joined = (pieces: readonly string[], fits: (text: string) => boolean, by: string): string[] =>
  pieces.reduce<string[]>((lines, piece) => {
    const last = lines.at(-1);
    const both = last === undefined ? piece : last + by + piece;
    return last !== undefined && fits(both) ? [...lines.slice(0, -1), both] : [...lines, piece];
  }, []);

/**
 * The lines of a spine label: prefix, class, author mark, year, suffix, volume and copy below each other, no part cut but where a reader
 * would cut it: a class at its point, LC and NLM numbers between their parts (common practice, no source). What fits neither
 * way is told, and set all the same.
 */
export function spineLines(
  of: SpineText,
  measure: Measure,
  room: { readonly width: number; readonly lines: number },
): SpineLines {
  const fits = (text: string) => measure(text) <= room.width;
  const whole =
    of.scheme === 'lc' || of.scheme === 'nlm'
      ? lcParts([of.class, of.item].join(' ').trim())
      : [of.class, ...of.item.split(/\s+/)];
  const parts = [
    ...of.prefix.split(/\s+/),
    ...whole,
    of.year ?? '',
    ...of.suffix.split(/\s+/),
    of.part ?? '',
    of.number > 1 ? `c. ${of.number}` : '',
  ].filter((part) => part.trim() !== '');
  const tooWide: string[] = [];
  const lines = parts.flatMap((part) => {
    const found = linesOf(part, fits);
    if (!found) tooWide.push(part);
    return found ?? [part];
  });
  const [wide] = tooWide;
  const problem =
    wide !== undefined
      ? `“${wide}” is too wide for the label.`
      : lines.length > room.lines
        ? `${lines.length} lines do not fit; the label has room for ${room.lines}.`
        : null;
  return { lines, problem };
}
