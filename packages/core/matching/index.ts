export type { Candidate, Decision, Match } from './match';
export { findMatches, matchKeys, proposedDecision, titlesAgree } from './match';
export { replaceRecord } from './replace';
