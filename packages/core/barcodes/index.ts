export { CHECK_RULES, checkCharacter, checkDigit, hasRightCheckDigit } from './check-character';
export type { CheckRule } from './check-character';
export {
  barcodeProblem,
  codeLength,
  fitsRule,
  isCopyCode,
  ruleProblems,
  ruleText,
  triedOn,
} from './barcode-rule';
export type { BarcodeRule } from './barcode-rule';
export { CODE_SCHEMES, readCode } from './codes';
export type { CodeReading, CodeScheme } from './codes';
export { barcodeFor, cleanScan, groupedBarcode, scanForms, scannedBarcode } from './scan';
export { nearMisses } from './near-misses';
export type { LabelRoll, RollUse } from './roll';
export {
  isSpoiled,
  nextSerial,
  rollCheck,
  rollCounts,
  rollNumber,
  rollProblems,
  serialIn,
  spoiledAsKept,
  spoiledIn,
  spoiledRuns,
} from './roll';
export { codesOf, codeTable, mayBeCode } from './code-list';
export { isRollFor, rollMeantFor } from './roll-for';
