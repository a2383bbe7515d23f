import type { Outcome } from '@osier/core/matching';
import { partWords as wording } from './words';

/** What is done with an incoming record, short enough for a row of a list. */
export const OUTCOME_SHORT: Record<Outcome, string> = {
  ask: 'decide',
  add: 'add',
  replace: 'replace',
  merge: 'merge',
  copies: wording.copiesOnly,
  skip: 'skip',
};
