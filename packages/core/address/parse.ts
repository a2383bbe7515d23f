import type {
  Address,
  AddressProblem,
  Alternatives,
  AddressCondition,
  Operator,
  Range,
  SubfieldAddress,
  Term,
} from './address';

class Stop extends Error {
  constructor(
    readonly problem: string,
    readonly at: number,
  ) {
    super(problem);
  }
}

/** Conditions in conditions in conditions: more of them than this say nothing that a person could read. */
const DEEPEST = 6;
/** Characters of the longest address. */
const LONGEST = 1000;

/** Reads an address such as `245$a`, `008/35-37`, `650^2` or `020$c{$q=\paperback}`; a problem says what and where. */
export function parseAddress(text: string): Address | AddressProblem {
  if (text.length > LONGEST) return { problem: `An address has up to ${LONGEST} characters.`, at: LONGEST };
  try {
    const reader = new Reader(text);
    const address = reader.address();
    if (!reader.atEnd()) reader.stop(`“${text.slice(reader.at)}” is left over`);
    return address;
  } catch (error) {
    if (error instanceof Stop) return { problem: error.problem, at: error.at };
    throw error;
  }
}

/** Walks along the text; every method reads one rule of the grammar. */
class Reader {
  at = 0;
  private depth = 0;
  constructor(private readonly text: string) {}

  atEnd = () => this.at >= this.text.length;
  private next = () => this.text[this.at];
  stop(problem: string): never {
    throw new Stop(`${problem}.`, this.at);
  }
  private take(expected: string): boolean {
    if (!this.text.startsWith(expected, this.at)) return false;
    this.at += expected.length;
    return true;
  }
  private match(pattern: RegExp): string | undefined {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.text)?.[0];
    if (found !== undefined) this.at += found.length;
    return found;
  }

  address(): Address {
    const tag = this.match(TAG);
    if (tag === undefined) this.stop('An address begins with a tag of three characters, as 245 or 6..');
    return { tag, ...this.rest() };
  }

  /** What follows the tag: index, then subfields, an indicator, or characters with conditions. */
  rest(): Omit<Address, 'tag'> {
    const index = this.index();
    if (this.next() === '$') {
      const subfields: SubfieldAddress[] = [];
      while (this.next() === '$') subfields.push(this.subfield());
      return { ...(index && { index }), subfields, conditions: [] };
    }
    const indicator = this.take('^') ? this.indicator() : undefined;
    const characters = indicator ? undefined : this.characters();
    const conditions = this.conditions();
    return {
      ...(index && { index }),
      ...(indicator && { indicator }),
      ...(characters && { characters }),
      subfields: [],
      conditions,
    };
  }

  private indicator(): 1 | 2 {
    if (this.take('1')) return 1;
    if (this.take('2')) return 2;
    return this.stop('A field has indicators ^1 and ^2');
  }

  private subfield(): SubfieldAddress {
    this.take('$');
    const from = this.match(CODE);
    if (from === undefined) this.stop('A subfield code is missing behind $');
    const to = CODE_RANGE.test(`${from}${this.text.slice(this.at, this.at + 2)}`)
      ? this.text[this.at + 1]!
      : from;
    if (to !== from) this.at += 2;
    if (to < from) this.stop(`$${from}-${to} runs backwards`);
    const index = this.index();
    const characters = this.characters();
    return {
      from,
      to,
      ...(index && { index }),
      ...(characters && { characters }),
      conditions: this.conditions(),
    };
  }

  private index(): Range | undefined {
    if (!this.take('[')) return undefined;
    const range = this.range();
    if (!this.take(']')) this.stop('The index is not closed with ]');
    return range;
  }

  private characters = (): Range | undefined => (this.take('/') ? this.range() : undefined);

  private range(): Range {
    const from = this.position();
    const to = this.take('-') ? this.position() : from;
    if (from !== '#' && to !== '#' && to < from) this.stop(`${from}-${to} runs backwards`);
    return { from, to };
  }

  private position(): number | '#' {
    if (this.take('#')) return '#';
    const digits = this.match(/\d+/y);
    if (digits === undefined) this.stop('A number or # is missing');
    return Number(digits);
  }

  private conditions(): Alternatives[] {
    const all: Alternatives[] = [];
    while (this.take('{')) {
      if (++this.depth > DEEPEST) this.stop(`Conditions stand at most ${DEEPEST} deep in each other`);
      const alternatives = [this.condition()];
      while (this.take('|')) alternatives.push(this.condition());
      if (!this.take('}')) this.stop('The condition is not closed with }');
      all.push(alternatives);
      this.depth--;
    }
    return all;
  }

  private condition(): AddressCondition {
    const leading = this.operator();
    if (leading) {
      const right = this.term();
      return { left: leading === '?' || leading === '!' ? right : HERE, operator: leading, right };
    }
    const left = this.term();
    const operator = this.operator();
    if (!operator) return { left, operator: '?', right: left };
    return { left, operator, right: this.term() };
  }

  private operator(): Operator | undefined {
    return this.match(/!=|!~|[=~?!]/y) as Operator | undefined;
  }

  private term(): Term {
    if (this.take('\\')) return { kind: 'text', text: this.comparison() };
    if ('$^/['.includes(this.next() ?? ' ')) return { kind: 'here', address: this.rest() };
    return { kind: 'record', address: this.address() };
  }

  /** Text up to an operator or the end of the condition; `\s` is a blank, and a backslash keeps what follows it. */
  private comparison(): string {
    let out = '';
    while (!this.atEnd() && !'{}|!=~?'.includes(this.next()!)) {
      if (this.take('\\')) {
        const kept = this.next();
        if (kept === undefined) this.stop('Nothing follows the backslash');
        out += kept === 's' ? ' ' : kept;
        this.at++;
      } else out += this.text[this.at++]!;
    }
    return out;
  }
}

const TAG = /(?:[a-z0-9.]{3}|[A-Z0-9.]{3})/y;
const CODE = /[!-?[-{}-~]/y;
const CODE_RANGE = /^(?:[0-9]-[0-9]|[a-z]-[a-z])/;
/** The thing at which the condition stands. */
const HERE: Term = { kind: 'here', address: { subfields: [], conditions: [] } };
