export type {
  FieldCodes,
  FieldDefinition,
  Format,
  IndicatorDefinition,
  PositionDefinition,
} from './definitions';
export {
  codeMeaning,
  fieldCodes,
  fieldDefinition,
  fieldName,
  fieldTags,
  formatOf,
  indicatorMeaning,
  isLocalTag,
  isObsoleteTag,
  subfieldName,
} from './definitions';
export type { CodeList } from './codes';
export { codeName, codeNamed, codeOptions, codeStanding } from './codes';
export type { PositionReading } from './fixed-positions';
export {
  LENGTH_007,
  materialOf,
  positionMeaning,
  positionsOf,
  filledUndefined,
  readPositions,
  undefinedCodes,
} from './fixed-positions';
