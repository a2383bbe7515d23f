import { headingsWords as wording } from './words';

/** What a kind of headings is called, for several and for one. */
export const kindsName = (kind: string): string => wording.kinds[kind] ?? kind;
export const kindName = (kind: string): string => wording.kindOf[kind] ?? kind;

/** What a vocabulary is called: its code where nothing better is known. */
export const vocabularyName = (code: string): string => wording.vocabularies[code] ?? code;

/** A group of headings in the address: no other has its two lowest headings. */
export const groupId = (headings: readonly { readonly id: number }[]): number =>
  (headings[0]?.id ?? 0) * 2 ** 26 + (headings[1]?.id ?? 0);
