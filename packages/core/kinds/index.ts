export type { ColumnTest, ColumnType, ColumnValue, KindAccess, KindDescriptor, Once, Parent } from './kind';
export type { Change, ChangeSet, Kind, KindColumns, KindValue, StoredObject } from './kinds';
export { SHELF_KEY_VERSION } from './holding-access';
export type { KeptStarter } from './starter';
export { childrenOf, isKind, KIND_NAMES, KINDS, labelOf, labelOfAny, nounOf } from './kinds';
