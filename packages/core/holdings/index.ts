export type { CodeLists, Coded, Copy, CopyStatus, Holding, LoanRule, LocalValue, Withdrawn } from './objects';
export { copyName, COPY_STATUSES, LOAN_RULES, NO_LISTS, partKey } from './objects';
export type { FieldFault as FieldProblem } from './code-check';
export { codeProblem, placeProblems, sourceProblems } from './code-check';
export type { LoanFigure, LoanFigures, UntakenLine } from './loan-figures';
export { loanFigures, withLoanFigure } from './loan-figures';
export type { Cost, Price } from './price';
export {
  amountText,
  copyCost,
  costIn,
  costText,
  isCurrency,
  priceText,
  readPrice,
  sumText,
  typedPrice,
  WHAT_A_PRICE_IS,
} from './price';
export type { CopyDefaults, CopyMapping, CopyPart } from './mapping';
export { COPY_PARTS, mappingProblems, NO_DEFAULTS, STANDARD_MAPPING } from './mapping';
export type { CopyRules, ProposedCopy } from './copies-from';
export { copiesFrom, copyProblems } from './copies-from';
export type { LoanAnswer, LoanState } from './loan';
export { dueOf, LOAN_NOT_KNOWN, LOAN_STATES } from './loan';
export { asExported, isTakenField } from './taken-fields';
export type { AddSeveral, CopyToCome, RowProblem } from './add-several';
export { addSeveral } from './add-several';
export type { PartEdit, EditedPart, EditWay } from './edited-parts';
export { COPY_EDITS, EDIT_WAYS, EDITED_PARTS, PLACE_EDITS } from './edited-parts';
export { editFaults, waysOf } from './copy-edits';
export type { ChangedCopy, ManyChanged, TitleCopies } from './change-many';
export { changeMany } from './change-many';
export type { OnShelf } from './as-marc';
export { holdingsRecords, withHoldings } from './as-marc';
export { withCodes } from './rules-now';
export type { KeptLocalField, LocalField, LocalForm } from './local-fields';
export {
  isLocalValue,
  isOfType,
  LOCAL_FORMS,
  localFieldProblems,
  localOf,
  readLocal,
  readLocals,
  withKnownLocals,
  withLocal,
} from './local-fields';
