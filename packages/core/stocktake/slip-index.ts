import type { CodeSense } from './code-sense';

/** Digits that a number can hold without loss. */
const MOST_DIGITS = 15;
/** Bits of the sieve: a prime, some thirty times as many as a large library has copies for one walk. */
const BITS = 2_097_143;

/**
 * Barcodes, and which of them one slip leads to: from a sound number two neighbours swapped; from one of the right length one character
 * another, or two neighbours swapped; from one that is one short a character put in. Numbers that nothing has are sieved out by arithmetic,
 * before a text is made of them.
 */
export class SlipIndex {
  private readonly indexes = new Map<string, number>();
  private readonly sieve = new Uint8Array((BITS >> 3) + 1);

  constructor(
    barcodes: Iterable<string>,
    private readonly sense: CodeSense,
  ) {
    let at = 0;
    for (const code of barcodes) {
      this.indexes.set(code, at++);
      const bit = Number(code) % BITS;
      if (bit >= 0) this.sieve[bit >> 3]! |= 1 << (bit & 7);
    }
  }

  /** The index of a barcode; -1 for none. */
  at(code: string): number {
    return this.indexes.get(code) ?? -1;
  }

  /** Indexes of the barcodes that one slip leads to from a code that is none, by barcode. */
  near(code: string): number[] {
    const found =
      /^\d+$/.test(code) && this.sense.characters.length === 10 && code.length < MOST_DIGITS
        ? this.nearNumber(code)
        : this.nearText(code);
    return [...new Set(found)].sort().flatMap((candidate) => this.indexes.get(candidate) ?? []);
  }

  private nearNumber(code: string): string[] {
    const { sense } = this;
    const found: string[] = [];
    const digits = [...code].map(Number);
    const value = Number(code);
    const look = (number: number, length: number) => {
      const bit = number % BITS;
      if (this.sieve[bit >> 3]! & (1 << (bit & 7))) found.push(String(number).padStart(length, '0'));
    };
    const length = digits.length;
    if (sense.hasLength(length)) {
      let power = 10 ** (length - 1);
      for (let i = 0; i + 1 < length; i++, power /= 10)
        look(value + (digits[i + 1]! - digits[i]!) * (power - power / 10), length);
      if (!sense.isSound(code)) {
        power = 10 ** (length - 1);
        for (let i = 0; i < length; i++, power /= 10)
          for (let other = 0; other < 10; other++) look(value + (other - digits[i]!) * power, length);
      }
    }
    if (sense.hasLength(length + 1)) {
      let power = 10 ** length;
      let [head, tail] = [0, value];
      for (let i = 0; i <= length; i++) {
        for (let other = 0; other < 10; other++) look((head * 10 + other) * power + tail, length + 1);
        if (i === length) break;
        head = head * 10 + digits[i]!;
        power /= 10;
        tail -= digits[i]! * power;
      }
    }
    return found;
  }

  private nearText(code: string): string[] {
    const { sense } = this;
    const found: string[] = [];
    if (sense.hasLength(code.length)) {
      for (let i = 0; i + 1 < code.length; i++)
        found.push(code.slice(0, i) + code[i + 1]! + code[i]! + code.slice(i + 2));
      if (!sense.isSound(code))
        for (let i = 0; i < code.length; i++)
          for (const other of sense.characters) found.push(code.slice(0, i) + other + code.slice(i + 1));
    }
    if (sense.hasLength(code.length + 1))
      for (let i = 0; i <= code.length; i++)
        for (const other of sense.characters) found.push(code.slice(0, i) + other + code.slice(i));
    return found;
  }
}
