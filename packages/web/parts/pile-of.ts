import type { PiledKind } from '@osier/core/piles';

/** What a pile may be of, for a form. */
export const PILE_OF: readonly { readonly value: PiledKind; readonly label: string }[] = [
  { value: 'copy', label: 'copies, one barcode each' },
  { value: 'record', label: 'records, whole titles' },
];
