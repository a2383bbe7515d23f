import type { CodeSense } from './code-sense';
import { MOST_DIGITS, NumberIndex, numberOf } from './number-index';

/**
 * Barcodes, and which of them one slip leads to: from a sound number two neighbours swapped; from one of the right length one character
 * another, or two neighbours swapped; from one that is one short a character put in. Numbers are looked up as such, without a text made of them.
 */
export class SlipIndex {
  private readonly numbers: NumberIndex;
  private readonly texts = new Map<string, number>();

  constructor(
    private readonly barcodes: readonly string[],
    private readonly sense: CodeSense,
  ) {
    this.numbers = new NumberIndex(barcodes.length);
    barcodes.forEach((code, at) => {
      const number = numberOf(code);
      if (number < 0) this.texts.set(code, at);
      else this.numbers.set(number, code.length, at);
    });
  }

  /** The index of a barcode; -1 for none. */
  at(code: string): number {
    const number = numberOf(code);
    return number < 0 ? (this.texts.get(code) ?? -1) : this.numbers.at(number, code.length);
  }

  /** Indexes of the barcodes that one slip leads to from a code that is none, by barcode. */
  near(code: string): number[] {
    const number = numberOf(code);
    const found =
      number >= 0 && code.length < MOST_DIGITS && this.sense.characters.length === 10
        ? this.nearNumber(code, number)
        : this.nearText(code).flatMap((near) => {
            const at = this.at(near);
            return at < 0 ? [] : [at];
          });
    return [...new Set(found)].sort((a, b) => (this.barcodes[a]! < this.barcodes[b]! ? -1 : 1));
  }

  private nearNumber(code: string, value: number): number[] {
    const { sense } = this;
    const found: number[] = [];
    const digits = [...code].map(Number);
    const look = (number: number, length: number) => {
      const index = this.numbers.at(number, length);
      if (index >= 0) found.push(index);
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
