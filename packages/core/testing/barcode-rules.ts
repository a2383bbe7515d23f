import type { BarcodeRule } from '../barcodes';

/** Rules of a library with 14 digits on its copies and readers' cards. */
export const COPIES_14: BarcodeRule = { of: 'copy', prefix: '31204', form: '999999999', check: 'mod10' };
export const RULES_14: readonly BarcodeRule[] = [
  COPIES_14,
  { of: 'reader', prefix: '21204', form: '999999999', check: 'mod10' },
];
