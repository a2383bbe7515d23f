import type { Cql, CqlClause, CqlModifier, CqlNode, CqlRelation, CqlSortKey } from './cql';

/** Why a text is no query, and where: the place in characters from its beginning. */
export interface CqlProblem {
  readonly problem: string;
  readonly at: number;
}

/** Whether reading a query gave one. */
export const isCql = (read: Cql | CqlProblem): read is Cql => 'node' in read;

interface Token {
  readonly kind: 'word' | 'quoted' | 'sign' | 'end';
  readonly text: string;
  readonly at: number;
}

const SIGNS = ['==', '<=', '>=', '<>', '=', '<', '>', '(', ')', '/'];
const COMPARING = new Set(['=', '==', '<', '>', '<=', '>=', '<>']);
const BOOLEANS = ['and', 'or', 'not', 'prox'] as const;
/** Brackets within brackets, and conditions, that one query may have. */
const DEEPEST = 200;
const MOST_TOKENS = 5000;

class Unreadable extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

/**
 * Reads a query by the grammar of CQL (SRU 1.2; OASIS searchRetrieve part 5, CQL 1.0, which is CQL 2.0): booleans are of one rank and
 * go from the left, words of the language count in any case, `sortBy` stands at the end.
 */
export function parseCql(text: string): Cql | CqlProblem {
  try {
    return new Parsing(tokensOf(text)).query();
  } catch (error) {
    if (error instanceof Unreadable) return { problem: error.message, at: error.at };
    throw error;
  }
}

function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  for (let at = 0; at < text.length;) {
    if (/\s/.test(text[at]!)) {
      at++;
      continue;
    }
    if (tokens.length >= MOST_TOKENS) throw new Unreadable('The query is too long.', at);
    const sign = SIGNS.find((s) => text.startsWith(s, at));
    if (sign) {
      tokens.push({ kind: 'sign', text: sign, at });
      at += sign.length;
    } else if (text[at] === '"') {
      const end = closing(text, at);
      tokens.push({ kind: 'quoted', text: text.slice(at + 1, end), at });
      at = end + 1;
    } else {
      const [bare = ''] = /^[^\s()=<>"/]+/.exec(text.slice(at, at + LONGEST_WORD)) ?? [];
      // A backslash at the end guards nothing: it stands for itself.
      const isOpen = /\\*$/.exec(bare)![0].length % 2 === 1;
      tokens.push({ kind: 'word', text: isOpen ? `${bare}\\` : bare, at });
      at += bare.length;
    }
  }
  tokens.push({ kind: 'end', text: '', at: text.length });
  return tokens;
}
/** A longer word is read as several. */
const LONGEST_WORD = 10_000;

/** Where a quoted text ends: at the next quotation mark that no backslash guards. */
function closing(text: string, from: number): number {
  for (let at = from + 1; at < text.length; at++) {
    if (text[at] === '\\') at++;
    else if (text[at] === '"') return at;
  }
  throw new Unreadable('A quotation mark is not closed.', from);
}

/** Reads tokens from the left, one after another. */
class Parsing {
  private next = 0;
  private depth = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  query(): Cql {
    const node = this.prefixedOrScoped();
    const sort = this.isWord('sortby') ? this.sortKeys() : [];
    const left = this.token();
    if (left.kind !== 'end')
      throw new Unreadable(
        left.text === ')'
          ? 'A bracket is closed that was not opened.'
          : `Something like “and” is missing before “${left.text}”.`,
        left.at,
      );
    return { node, sort };
  }

  private token(ahead = 0): Token {
    return this.tokens[Math.min(this.next + ahead, this.tokens.length - 1)]!;
  }

  private isSign(text: string): boolean {
    const { kind, text: found } = this.token();
    return kind === 'sign' && found === text;
  }

  private isWord(text: string): boolean {
    const { kind, text: found } = this.token();
    return kind === 'word' && found.toLowerCase() === text;
  }

  private take(): Token {
    const token = this.token();
    this.next++;
    return token;
  }

  /** A name or a term: a word or a quoted text. */
  private text(what: string): string {
    const token = this.token();
    if (token.kind !== 'word' && token.kind !== 'quoted')
      throw new Unreadable(
        token.kind === 'end'
          ? `${what} is missing at the end.`
          : `${what} is missing before “${token.text}”.`,
        token.at,
      );
    this.next++;
    return token.text;
  }

  private prefixedOrScoped(): CqlNode {
    if (!this.isSign('>')) return this.scoped();
    this.deeper();
    this.take();
    const first = this.text('A prefix');
    const isNamed = this.isSign('=');
    if (isNamed) this.take();
    const uri = isNamed ? this.text('The address of a context set') : first;
    const of = this.prefixedOrScoped();
    this.depth--;
    return { type: 'prefixed', prefix: isNamed ? first : '', uri, of };
  }

  private scoped(): CqlNode {
    let left = this.condition();
    for (;;) {
      const { kind, text } = this.token();
      const by = BOOLEANS.find((b) => kind === 'word' && text.toLowerCase() === b);
      if (by === undefined) return left;
      this.take();
      const modifiers = this.modifiers();
      left = { type: 'joined', by, modifiers, left, right: this.condition() };
    }
  }

  private condition(): CqlNode {
    if (this.isSign('(')) {
      const { at } = this.token();
      this.deeper();
      this.take();
      const inside = this.prefixedOrScoped();
      if (!this.isSign(')')) throw new Unreadable('A bracket is not closed.', at);
      this.take();
      this.depth--;
      return inside;
    }
    const { kind, text, at } = this.token();
    if (
      kind === 'word' &&
      (BOOLEANS.some((b) => b === text.toLowerCase()) || text.toLowerCase() === 'sortby')
    )
      throw new Unreadable(
        `Something to search for is missing before “${text}”; write it in quotation marks to search for the word.`,
        at,
      );
    const first = this.text('Something to search for');
    const relation = this.relation();
    const clause: CqlClause =
      relation === null
        ? { type: 'clause', index: '', relation, term: first }
        : { type: 'clause', index: first, relation, term: this.text('What is searched for') };
    return clause;
  }

  /** A comparing sign, or a word before another term (`title any "eel pout"`); null where the term stands alone. */
  private relation(): CqlRelation | null {
    const { kind, text } = this.token();
    if (kind === 'sign' && COMPARING.has(text)) {
      this.take();
      return { name: text, modifiers: this.modifiers() };
    }
    const isName =
      kind === 'word' && !BOOLEANS.some((b) => b === text.toLowerCase()) && text.toLowerCase() !== 'sortby';
    if (!isName) return null;
    this.take();
    return { name: text, modifiers: this.modifiers() };
  }

  private modifiers(): CqlModifier[] {
    const found: CqlModifier[] = [];
    while (this.isSign('/')) {
      this.take();
      const name = this.text('The name of a modifier');
      const { kind, text: sign } = this.token();
      const hasValue = kind === 'sign' && COMPARING.has(sign);
      if (hasValue) this.take();
      found.push(
        hasValue
          ? { name, sign, value: this.text('The value of a modifier') }
          : { name, sign: '', value: '' },
      );
    }
    return found;
  }

  private sortKeys(): CqlSortKey[] {
    this.take();
    const keys: CqlSortKey[] = [];
    do keys.push({ index: this.text('What to sort by'), modifiers: this.modifiers() });
    while (['word', 'quoted'].includes(this.token().kind));
    return keys;
  }

  private deeper(): void {
    if (++this.depth > DEEPEST)
      throw new Unreadable('The query has too many brackets within brackets.', this.token().at);
  }
}
