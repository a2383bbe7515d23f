export type { FieldDefinition, IndicatorDefinition, PositionDefinition } from './definitions';
export {
  fieldDefinition,
  fieldName,
  indicatorMeaning,
  isLocalTag,
  subfieldIsRepeatable,
  subfieldName,
} from './definitions';
export type { PositionReading } from './fixed-positions';
export { materialOf, readPositions } from './fixed-positions';
