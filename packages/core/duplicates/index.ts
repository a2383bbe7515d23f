export type { Apart, Lead, MergeChange, RecordMerge, Stocked } from './merge-records';
export { movedStock, recordMergePlan } from './merge-records';
export type { Compared, RecordPair } from './pairs';
export { pairsOf } from './pairs';
