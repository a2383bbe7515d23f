import { inPieces, type Pieces } from './in-pieces';

/** Cuts a stream of MARCXML into its record elements, so that a broken one does not spoil the others. */
export interface XmlSplitter extends Pieces<XmlPiece> {
  /** What stood before the first record: declaration, root. */
  head(): string;
}
/** One record element of a file, as text. */
export interface XmlPiece {
  readonly text: string;
  /** In characters of the stream. */
  readonly offset: number;
  /** Its end tag is there. */
  readonly closed: boolean;
}

const START = /<(?:[\w.-]+:)?record(?=[\s>/])(?!\s*\/>)/g;
const EDGE = /<\/(?:[\w.-]+:)?record\s*>|<(?:[\w.-]+:)?record(?=[\s>/])(?!\s*\/>)/g;
const PART = /<(?:[\w.-]+:)?(?:leader|controlfield|datafield)[\s>/]/;
/** The longest start tag or end tag that a piece of the stream may cut in two. */
const MARGIN = 200;
const LONGEST = 1 << 26;

/** Cuts an XML file that comes in pieces into records. */
export function xmlSplitter(): XmlSplitter {
  let head = '';
  let begun = false;
  const pieces = inPieces<XmlPiece>((text, offset, last, found) => {
    let at = 0;
    for (;;) {
      START.lastIndex = at;
      const start = START.exec(text)?.index ?? -1;
      if (start < 0) {
        const keep = last ? text.length : Math.max(at, text.length - MARGIN);
        if (!begun) head += text.slice(at, keep);
        return !last || !begun ? keep : at;
      }
      if (!begun) head += text.slice(at, start);
      begun = true;
      EDGE.lastIndex = start + 1;
      const edge = EDGE.exec(text);
      if (!edge && !last && text.length - start < LONGEST) return start;
      // Answers of SRU and OAI-PMH wrap records in elements of the same name; those have nothing of a record themselves.
      if (edge && !edge[0].startsWith('</') && !PART.test(text.slice(start, edge.index))) {
        at = edge.index;
        continue;
      }
      const closed = edge?.[0].startsWith('</') ?? false;
      const end = edge ? edge.index + (closed ? edge[0].length : 0) : text.length;
      found.push({ text: text.slice(start, end), offset: offset + start, closed });
      at = end;
    }
  });
  return { ...pieces, head: () => head };
}
