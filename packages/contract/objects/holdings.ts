import { SCHEMES } from '@osier/core/callnumbers';
import { COPY_STATUSES, LOAN_RULES, LOAN_STATES } from '@osier/core/holdings';
import { flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';

/** The scheme of a call number (852, first indicator). */
export const scheme = () => wordOf(SCHEMES);
const callNumber = {
  scheme: scheme(),
  prefix: text(),
  class: text(),
  item: text(),
  year: text().optional(),
  suffix: text(),
};
/** A call number that is offered, with where it comes from. */
export const callNumberOfferSchema = shape({ ...callNumber, from: text(), rule: text() });

/** Where copies stand. */
export const holdingSchema = shape({
  ...callNumber,
  record: whole(),
  branch: text(),
  location: text(),
  note: text(),
  staffNote: text().optional(),
});
/** How a copy stands in the books. */
export const copyStatus = () => wordOf(COPY_STATUSES);
/** What the loans desk says of a copy. */
export const loanState = () => wordOf(LOAN_STATES);
/** What a copy has in local fields, by their numbers. */
export const localValueList = () => listOf(shape({ field: whole(), value: text() }));
/** A copy; its price in hundredths. */
export const copySchema = shape({
  holding: whole(),
  barcode: text(),
  part: text().optional(),
  number: whole(),
  type: text(),
  price: orNull(whole()),
  currency: text().optional(),
  fund: text(),
  supplier: text(),
  acquired: text(),
  condition: text(),
  note: text(),
  staffNote: text().optional(),
  loanRule: wordOf(LOAN_RULES).optional(),
  status: copyStatus(),
  lastSeen: text(),
  loans: whole().optional(),
  lastLoan: text().optional(),
  local: localValueList().optional(),
});
/** A copy that is to be made with a record, and what stands in its way. */
export const proposedCopySchema = shape({
  branch: text(),
  location: text(),
  ...callNumber,
  barcode: text(),
  keepBarcode: flag().optional(),
  part: text().optional(),
  number: whole(),
  type: text(),
  price: orNull(whole()),
  currency: text().optional(),
  fund: text(),
  supplier: text(),
  note: text(),
  staffNote: text().optional(),
  condition: text().optional(),
  acquired: text().optional(),
  loanRule: wordOf(LOAN_RULES).optional(),
  status: copyStatus(),
  problems: listOf(text()),
  remarks: listOf(text()),
});
/** A withdrawn copy as the register keeps it. */
export const withdrawnSchema = shape({
  copy: copySchema,
  copyId: whole(),
  record: whole(),
  title: text(),
  branch: text(),
  location: text(),
  callNumber: text(),
  withdrawnOn: text(),
  by: text(),
  reason: text(),
  lastCopy: flag(),
  author: text().optional(),
  list: text().optional(),
  preparedBy: text().optional(),
  /** What was said against it when it was confirmed all the same, and why the head overruled what stopped it. */
  despite: listOf(text()).optional(),
  overruled: text().optional(),
});
