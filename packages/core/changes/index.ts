export type { Change, ChangeSet, Versioned } from './change-set';
export { creation, removal, update } from './change-set';
export type { Conflict, Standing } from './invert';
export { invert, rebase, squash } from './invert';
export type { ChangeCounts } from './describe';
export { counted, countChanges } from './describe';
export { sameValue } from './same-value';
