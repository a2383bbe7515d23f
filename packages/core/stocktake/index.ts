export type { ShelfCopy, Stretch } from './stretch';
export { outsideStretch, rangeKeys } from './stretch';
export type { OneScan, ScanVerdict } from './scan-verdict';
export { scanVerdict } from './scan-verdict';
export { outOfOrder } from './shelf-order';
export type {
  ReconcileOptions,
  Reconciliation,
  Settlement,
  ScannedShelf,
  StockFinding,
  StockFindingKind,
} from './reconcile';
export { isExpected, reconcile } from './reconcile';
export type { Jump, Spine } from './spines';
export type { SettleChange, SettleItem, SettleTerms } from './settle';
export { settlePlan } from './settle';
export type { ScanBatch, Stocktake } from './objects';
