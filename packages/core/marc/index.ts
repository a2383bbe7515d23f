export type { ControlField, DataField, Field, MarcRecord, Subfield } from './record';
export {
  controlValue,
  dataFields,
  field,
  fieldText,
  first,
  firstValue,
  isControl,
  isData,
  runningText,
  values,
} from './record';
export type { Where } from './where';
export type { RecordEdit } from './edit';
export { applyEdits, placeFor, withField } from './edit';
export type { ReadRecord, Repair, RepairCode } from './repair';
export * from './iso2709';
export { decodeMarc8 } from './charset/marc8';
export { encodeMarc8 } from './charset/marc8-encode';
export { decodeUtf8, encodeUtf8 } from './charset/utf8';
export { MARCXML_END, MARCXML_START, marcXmlElement, marcXmlReader } from './xml';
export { jsonText, marcJson, readMarcJson } from './json';
export { lineForm, lineOf } from './lines';
export { harmlessCell } from './formula-cells';
export { BETWEEN_TEXTS } from './table';
export type { FileFormat, Recognised } from './recognise';
export { recogniseFormat } from './recognise';
export type { FieldPair, TextPart } from './compare';
export { compareRecords, differs, textParts } from './compare';
export { recordReader, type RecordReader } from './reader';
export { subjectString } from './subject-string';
export { eastAsianOf, type EastAsian } from './east-asian';
export { withPartners, type FieldAt } from './partners';
export { withLeftover } from './with-leftover';
export type { Collision, Reconciled, Side } from './three-way';
export { reconciled } from './three-way';
