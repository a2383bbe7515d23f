import { inPieces, type Pieces } from './in-pieces';

/** One text, and where it stands in characters of the stream. */
export interface SplitText {
  readonly text: string;
  readonly offset: number;
  /** What the text says; undefined when it is not JSON. */
  readonly value: unknown;
}

/** A line break and then the beginning of another record: whatever was open before it is broken. */
const NEXT_RECORD = /\n[ \t]*\{\s*"(?:leader|fields)"/y;

/** Cuts a stream of text into JSON objects: one a line, one after another, or the elements of an array. */
export const jsonSplitter = (): Pieces<SplitText> =>
  inPieces((text, offset, last, found) => {
    let at = 0;
    for (;;) {
      while (at < text.length && BETWEEN.includes(text[at]!)) at++;
      if (at >= text.length) return at;
      const line = wholeLine(text, at);
      if (line) {
        found.push({ ...line, offset: offset + at });
        at += line.text.length;
        continue;
      }
      const end = endOfValue(text, at);
      if (end < 0 && !last && text.length - at < LONGEST) return at;
      const value = text.slice(at, end < 0 ? brokenEnd(text, at) : end);
      found.push({ text: value, offset: offset + at, value: valueOf(value) });
      at += value.length;
    }
  });

const BETWEEN = ' \t\r\n,[]\ufeff';
/** Characters after which an object that does not end is given up. */
const LONGEST = 1 << 25;

/** The end of the object that starts at `from`, -1 when it is not there; a broken one ends where the next begins. */
function endOfValue(text: string, from: number): number {
  if (text[from] !== '{') return text.indexOf('\n', from);
  let depth = 0;
  let inString = false;
  for (let i = from; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (inString) {
      if (c === 0x5c) i++;
      else if (c === 0x22) inString = false;
      else if (c === 0x0a) return i;
    } else if (c === 0x22) inString = true;
    else if (c === 0x7b || c === 0x5b) depth++;
    else if (c === 0x7d || c === 0x5d) {
      if (--depth === 0) return i + 1;
    } else if (c === 0x0a && i > from) {
      NEXT_RECORD.lastIndex = i;
      if (NEXT_RECORD.test(text)) return i;
    }
  }
  return -1;
}

/** The object that fills the rest of a line, as in newline-delimited JSON; null when the line is no object. */
function wholeLine(text: string, from: number): { text: string; value: unknown } | null {
  const end = text.indexOf('\n', from);
  if (end < 0 || text[from] !== '{') return null;
  let to = end;
  while (' \t\r,]'.includes(text[to - 1]!)) to--;
  const line = text.slice(from, to);
  const value = line.endsWith('}') ? valueOf(line) : undefined;
  return value === undefined ? null : { text: line, value };
}

function valueOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

function brokenEnd(text: string, from: number): number {
  const line = text.indexOf('\n', from);
  return line < 0 ? text.length : line;
}
