import { checkCharacter, codeLength, type BarcodeRule, type CheckRule } from '../barcodes';

/** Why nothing is known of a code. */
export type UnknownWhy = 'isbn' | 'reader_card' | 'other_library' | 'not_in_file' | 'unreadable';

/** Barcodes of copies: all digits, of one length, with the beginning that the library has. */
interface DigitCodes {
  readonly prefix: string;
  readonly length: number;
  readonly check: CheckRule;
}

/** What a code may be by its form alone, in a library with these barcodes; without any, every code may be one. */
export class CodeSense {
  /** Characters that one misread character may have been. */
  readonly characters: readonly string[];
  private readonly lengths: ReadonlySet<number>;

  constructor(
    private readonly digits: readonly DigitCodes[],
    private readonly others: readonly BarcodeRule[] = [],
  ) {
    this.characters = [...(others.length ? '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ' : '0123456789')];
    this.lengths = new Set([...digits.map((d) => d.length), ...others.map(codeLength)]);
  }

  /** By the rules of the library. */
  static ofRules(rules: readonly BarcodeRule[]): CodeSense {
    const ofCopies = rules.filter((r) => r.of === 'copy');
    const isDigits = (r: BarcodeRule) => /^\d*$/.test(r.prefix) && /^9*$/.test(r.form);
    return new CodeSense(
      ofCopies.filter(isDigits).map((r) => ({ prefix: r.prefix, length: codeLength(r), check: r.check })),
      ofCopies.filter((r) => !isDigits(r)),
    );
  }

  /** Whether a number has the digits and the check digit of a barcode of a copy, here or elsewhere. */
  isSound(code: string): boolean {
    return this.soundBy(code).length > 0;
  }

  /** What a sound number that does not begin as those of this library is; null for any other. */
  stranger(code: string): 'reader_card' | 'other_library' | null {
    const sound = this.soundBy(code);
    if (sound.length === 0 || sound.some((d) => code.startsWith(d.prefix))) return null;
    const isCard = sound.some(
      (d) => d.prefix !== '' && code[0] === '2' && code.slice(1, d.prefix.length) === d.prefix.slice(1),
    );
    return isCard ? 'reader_card' : 'other_library';
  }

  /** Whether a barcode here has so many characters; any number where no rules are. */
  hasLength(length: number): boolean {
    return this.lengths.size === 0 ? length > 1 : this.lengths.has(length);
  }

  private soundBy(code: string): readonly DigitCodes[] {
    if (!/^\d+$/.test(code)) return [];
    return this.digits.filter(
      (d) =>
        d.length === code.length &&
        (d.check === 'none' || checkCharacter(d.check, code.slice(0, -1)) === code.at(-1)),
    );
  }
}

/** A scan made clean: blanks go, letters become large, stars at both ends go, then start and stop letters (A–D) at both ends. */
export function cleanCode(raw: string): string {
  const plain = raw.replace(/\s+/g, '').toUpperCase();
  const inner = plain.length > 1 && plain.startsWith('*') && plain.endsWith('*') ? plain.slice(1, -1) : plain;
  return inner.length > 1 && /^[A-D]/.test(inner) && /[A-D]$/.test(inner) ? inner.slice(1, -1) : inner;
}

/** The number on the cover of a book: an EAN of 13 digits from 978 or 979. */
export const isCoverNumber = (code: string): boolean =>
  /^97[89]\d{10}$/.test(code) && checkCharacter('ean', code.slice(0, 12)) === code[12];
