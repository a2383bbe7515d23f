export { addressOf } from './address-of';
export type {
  Address,
  AddressProblem,
  AddressCondition,
  Alternatives,
  Range,
  SubfieldAddress,
  Term,
} from './address';
export { isAddress } from './address';
export { parseAddress } from './parse';
export type { Found } from './find';
export { findAll, hasAny, textsAt } from './find';
export type { Column } from './csv';
export { csvHead, csvLine, csvRow, readColumns, USUAL_COLUMNS } from './csv';
