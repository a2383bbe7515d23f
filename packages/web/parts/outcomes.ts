import type { Outcome } from '@osier/core/matching';

/** What is done with an incoming record, as buttons and lists call it. */
export const OUTCOME_NAMES: Record<Outcome, string> = {
  ask: 'ask me',
  add: 'add as new',
  replace: 'replace',
  merge: 'merge fields',
  copies: 'attach copies only',
  skip: 'skip',
};
/** Short, for a row of a list. */
export const OUTCOME_SHORT: Record<Outcome, string> = {
  ask: 'decide',
  add: 'add',
  replace: 'replace',
  merge: 'merge',
  copies: 'copies only',
  skip: 'skip',
};
