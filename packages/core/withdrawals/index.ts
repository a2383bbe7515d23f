export type { Candidate, CopyCounts, Listed, Reason, Verdict, VerdictKind } from './verdict';
export { weigh } from './verdict';
export type { TitleStock, WithdrawalTerms } from './plan';
export { withdrawalPlan } from './plan';
