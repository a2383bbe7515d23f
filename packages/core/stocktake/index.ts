export type { ShelfCopy, Stretch } from './stretch';
export { outsideStretch, rangeKeys } from './stretch';
export { outOfOrder } from './shelf-order';
export type { Reconciliation, Settlement, Spine, StockFinding, StockFindingKind } from './reconcile';
export { reconcile } from './reconcile';
export type { SettleChange, SettleItem, SettleTerms } from './settle';
export { settlePlan } from './settle';
export type { ScanBatch, Stocktake } from './objects';
