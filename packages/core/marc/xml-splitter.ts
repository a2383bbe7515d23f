/** Cuts a stream of MARCXML into its record elements, so that a broken one does not spoil the others. */
export interface XmlSplitter {
  push(text: string): XmlPiece[];
  end(): XmlPiece[];
  /** What stood before the first record: declaration, root. */
  head(): string;
  /** What stands behind the last record. */
  tail(): string;
}
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

export function xmlSplitter(): XmlSplitter {
  let rest = '';
  let offset = 0;
  let head = '';
  let begun = false;
  const cut = (last: boolean): XmlPiece[] => {
    const found: XmlPiece[] = [];
    let at = 0;
    for (;;) {
      START.lastIndex = at;
      const start = START.exec(rest)?.index ?? -1;
      if (start < 0) {
        const keep = last ? rest.length : Math.max(at, rest.length - MARGIN);
        if (!begun) head += rest.slice(at, keep);
        if (!last || !begun) at = keep;
        break;
      }
      if (!begun) head += rest.slice(at, start);
      begun = true;
      EDGE.lastIndex = start + 1;
      const edge = EDGE.exec(rest);
      if (!edge && !last && rest.length - start < LONGEST) {
        at = start;
        break;
      }
      // Answers of SRU and OAI-PMH wrap records in elements of the same name; those have nothing of a record themselves.
      if (edge && !edge[0].startsWith('</') && !PART.test(rest.slice(start, edge.index))) {
        at = edge.index;
        continue;
      }
      const closed = edge?.[0].startsWith('</') ?? false;
      const end = edge ? edge.index + (closed ? edge[0].length : 0) : rest.length;
      found.push({ text: rest.slice(start, end), offset: offset + start, closed });
      at = end;
    }
    offset += at;
    rest = rest.slice(at);
    return found;
  };
  return {
    push(text) {
      rest += text;
      return cut(false);
    },
    end: () => cut(true),
    head: () => head,
    tail: () => rest,
  };
}
