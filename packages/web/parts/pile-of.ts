import type { PiledKind } from '@osier/core/piles';
import { partWords as wording } from './words';

/** What a pile may be of, for a form. */
export const PILE_OF: readonly { readonly value: PiledKind; readonly label: string }[] = [
  { value: 'copy', label: wording.copiesOneBarcodeEach },
  { value: 'record', label: wording.recordsWholeTitles },
];
