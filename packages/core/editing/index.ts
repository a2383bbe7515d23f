export type { EditStep, FieldHead } from './edit-step';
export { applyStep, invertStep, LEADER } from './edit-step';
export { mapField } from './map-place';
export { mapStep } from './map-step';
export type { EditTransaction } from './transaction';
export {
  applyTransaction,
  invertTransaction,
  mapFieldOver,
  mapTransaction,
  transactionBetween,
  transactionOfEdits,
} from './transaction';
export type { Edited, EditDone, EditHistory, EditMeaning } from './history';
export { afterAll, edited, NO_HISTORY, redone, undone } from './history';
export type { TracedField } from './traced-fields';
export { tracedFields } from './traced-fields';
export { canHavePartner, withPartner } from './partner';
export { isDataTag, withOtherTag } from './retag';
export type { Pasted } from './paste';
export { isEmptyField, isFieldLines, pastedFields } from './paste';
export type { FindReplace, Replaced } from './find-replace';
export { replaceText } from './find-replace';
export type { LostPosition, Relaid } from './fixed-field';
export { emptyFixedField, fixedCategories, withLeader, withPosition } from './fixed-field';
export { filledFromText } from './from-text';
export type { Prompt, Starter, StarterField, Wanted } from './starter';
export {
  begunRecord,
  fieldToFill,
  lackingOf,
  promptsOf,
  recordLike,
  starterField,
  starterLine,
} from './starter';
export { STARTERS } from './starters';
export type { BriefParts } from './brief-record';
export { briefRecord, isBriefRecord } from './brief-record';
export type { QuickAddition } from './quick-addition';
export { QUICK_ADDITIONS, quickField } from './quick-addition';
export { usualField } from './usual-field';
export type { CompletionSource, UsedTerm } from './completion';
export { completionSource, USED_TERMS } from './completion';
export { fieldBroughtBack } from './bring-back';
