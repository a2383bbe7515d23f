export type { AnyChange, ChangeOf, Id, Versioned } from './change-set';
export { creation, removal, update } from './change-set';
export type { Conflict, Standing } from './invert';
export { invert, joinChanges, rebase, squash } from './invert';
export type { ChangeCounts } from './describe';
export { counted, countChanges } from './describe';
export { sameValue } from './same-value';
