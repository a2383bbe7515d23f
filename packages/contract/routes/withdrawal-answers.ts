import { REASON_CODES } from '@osier/core/withdrawals';
import { flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import type { ValueOf } from '../endpoint';
import { loanState, withdrawnSchema } from '../objects/holdings';

const listParts = {
  id: whole(),
  name: text(),
  branch: text(),
  reason: text(),
  state: wordOf(['open', 'done']),
  codes: whole(),
  by: text(),
  madeOn: text(),
  confirmer: whole().optional(),
};
/** A withdrawal list with how many codes it has. */
export const withdrawalListRowSchema = shape(listParts);
/** A withdrawal list with how many codes it has. */
export type WithdrawalListRow = ValueOf<typeof withdrawalListRowSchema>;
/** A scan of a list with its verdict. */
export const withdrawalRowSchema = shape({
  code: text(),
  candidate: orNull(
    shape({
      copyId: whole(),
      holdingId: whole(),
      recordId: whole(),
      title: text(),
      branch: text(),
      status: text(),
      due: orNull(text()),
      loan: loanState(),
      price: orNull(whole()),
      currency: text().optional(),
    }),
  ),
  verdict: wordOf(['clear', 'caution', 'stop']),
  reasons: listOf(
    shape({
      code: wordOf(REASON_CODES),
      verdict: wordOf(['caution', 'stop']),
      message: text(),
    }),
  ),
  lastAtBranch: flag(),
  lastAnywhere: flag(),
  /** The same code stands further up: it counts once. */
  again: flag(),
  /** All that stops it may be overruled by the head. */
  overrulable: flag(),
  scan: whole(),
  /** It was put on the list from elsewhere, and is to be pulled from the shelf; null for a copy that was scanned. */
  pulled: orNull(flag()),
  callNumber: text(),
  /** The place on the shelf, by which call numbers are sorted. */
  shelfKey: text(),
  place: text(),
  loans: orNull(whole()),
  lastLoan: text(),
  /** Barcodes in use that an unknown one may have been misread for. */
  near: listOf(text()),
});
/** A withdrawal list with its verdicts as of now. */
export const withdrawalListSchema = shape({
  ...listParts,
  version: whole(),
  verdicts: listOf(withdrawalRowSchema),
  loansDesk: flag(),
});
/** A withdrawal list with its verdicts as of now. */
export type WithdrawalList = ValueOf<typeof withdrawalListSchema>;
/** A scan of a list with its verdict. */
export type WithdrawalRow = ValueOf<typeof withdrawalRowSchema>;
/** A copy that is to be pulled from the shelf. */
export const pullRowSchema = shape({
  ...{ code: text(), title: text(), callNumber: text(), place: text(), status: text() },
  pulled: flag(),
});
/** A copy that is to be pulled from the shelf, and whether it was. */
export type PullRow = ValueOf<typeof pullRowSchema>;
/** A row of the register. */
export const registerRowSchema = shape({
  id: whole(),
  entry: whole(),
  restored: flag(),
  withdrawn: withdrawnSchema,
});
/** A row of the register of withdrawn copies; `restored` when its withdrawal was undone. */
export type RegisterRow = ValueOf<typeof registerRowSchema>;

/** A holding of which the union catalogue is to be told. */
export const unionItemSchema = shape({
  holding: whole(),
  record: whole(),
  title: text(),
  callNumber: text(),
  branch: text(),
  location: text(),
  withdrawnOn: text(),
  /** The record is deleted; a holding of it is removed; what was told as gone is back. */
  what: wordOf(['record', 'holding', 'back']),
  copies: whole(),
});
/** A holding that went or came back, of which the union catalogue is to be told. */
export type UnionItem = ValueOf<typeof unionItemSchema>;
/** How much the union catalogue is told of. */
export const toldCounts = { holdings: whole(), records: whole(), back: whole() };
/** A notice to the union catalogue. */
export const tellingSchema = shape({ id: whole(), at: text(), by: text(), ...toldCounts });

/** Copies of a shelf by year of publication and the year in which they were used last; `hasLoans`: loan figures were loaded for some copy of the library. */
export const weedSchema = shape({
  hasLoans: flag(),
  cells: listOf(shape({ year: text(), used: orNull(text()), copies: whole(), spare: whole() })),
});
