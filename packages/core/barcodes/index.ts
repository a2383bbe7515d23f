export { checkDigit, hasRightCheckDigit } from './check-digit';
export type { BarcodeForm } from './scan';
export { barcodeFor, barcodeProblem, cleanScan, groupedBarcode } from './scan';
export { nearMisses } from './near-misses';
export type { LabelRoll } from './roll';
export { nextSerial, rollCounts, rollNumber, rollProblems, serialIn } from './roll';
