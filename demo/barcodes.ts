import type { BarcodeRule } from '@osier/core/barcodes';

/** Barcodes of the Wickmere Institute: 14 digits with a check digit, copies from 3 on, readers’ cards from 2 on. */
export const COPY_BARCODES: BarcodeRule = { of: 'copy', prefix: '31204', form: '999999999', check: 'mod10' };
export const WICKMERE_BARCODES: readonly BarcodeRule[] = [
  COPY_BARCODES,
  { of: 'reader', prefix: '21204', form: '999999999', check: 'mod10' },
];
