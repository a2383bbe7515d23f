export { LABEL_CODES, LABEL_KINDS, LABEL_SHEETS, labelPlaces, labelSheetProblems } from './sheet';
export type { LabelCode, LabelKind, LabelPlace, LabelSheet } from './sheet';
export { spineLines } from './spine';
export type { Measure, SpineLines, SpineText } from './spine';
