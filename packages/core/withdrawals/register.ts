import type { Withdrawn } from '../holdings';
import { fold } from '../text';

/** What the register is found and sorted by; `filing` is its title folded, `words` all that is searched. */
export interface RegisterColumns {
  readonly branch: string;
  readonly reason: string;
  readonly price: number | null;
  /** ISO 4217 code of its price's currency; '' for the library's. */
  readonly currency: string;
  readonly filing: string;
  readonly call_number: string;
  readonly words: string;
  /** The holding that it was on. */
  readonly holding: number;
}

/** The columns of a row of the register. */
export function registerColumns(w: Withdrawn): RegisterColumns {
  const { branch, reason, title, callNumber, copy } = w;
  const words = [title, w.author ?? '', copy.barcode, callNumber, w.list ?? ''].map(fold).join(' ');
  return {
    ...{ branch, reason, price: copy.price, currency: copy.currency ?? '' },
    ...{ filing: fold(title), call_number: callNumber, words, holding: copy.holding },
  };
}

/** What rows must have to be found by some words: each word anywhere, in whatever case and with or without accents. */
export const registerWords = (typed: string): readonly string[] => fold(typed).split(' ').filter(Boolean);
