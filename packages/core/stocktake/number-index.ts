/** Digits that a number can hold without loss. */
export const MOST_DIGITS = 15;

/** A text of digits as a number; -1 for any other, and for one that no number holds. */
export function numberOf(text: string): number {
  if (text.length === 0 || text.length > MOST_DIGITS) return -1;
  let number = 0;
  for (let i = 0; i < text.length; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (digit < 0 || digit > 9) return -1;
    number = number * 10 + digit;
  }
  return number;
}

/** Indexes by numbers of up to fifteen digits, leading noughts told apart by the length: an open table without objects, so that looking one up reads memory once. */
export class NumberIndex {
  private readonly mask: number;
  private readonly numbers: Float64Array;
  private readonly lengths: Uint8Array;
  private readonly indexes: Int32Array;

  /** For so many numbers at most. */
  constructor(size: number) {
    const room = 2 ** Math.ceil(Math.log2(Math.max(size, 1) * 2 + 1));
    this.mask = room - 1;
    this.numbers = new Float64Array(room);
    this.lengths = new Uint8Array(room);
    this.indexes = new Int32Array(room);
  }

  set(number: number, length: number, index: number): void {
    const at = this.placeOf(number, length);
    this.numbers[at] = number;
    this.lengths[at] = length;
    this.indexes[at] = index;
  }

  /** -1 for none. */
  at(number: number, length: number): number {
    const at = this.placeOf(number, length);
    return this.lengths[at] === 0 ? -1 : this.indexes[at]!;
  }

  /** Where a number is, or the free place where it would be. */
  private placeOf(number: number, length: number): number {
    const high = Math.floor(number / 2 ** 32);
    let at = Math.imul(number - high * 2 ** 32, 0x9e3779b1) ^ Math.imul(high + length, 0x85ebca6b);
    at = (at ^ (at >>> 15)) & this.mask;
    while (this.lengths[at] !== 0 && (this.numbers[at] !== number || this.lengths[at] !== length))
      at = (at + 1) & this.mask;
    return at;
  }
}
