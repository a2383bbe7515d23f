export type { Candidate, CopyCounts, Listed, Reason, Verdict, VerdictKind } from './verdict';
export { weighWithdrawals } from './verdict';
export type { WithdrawalListValue } from './list';
export type { TitleStock, WithdrawalChange, WithdrawalTerms } from './plan';
export { withdrawalPlan } from './plan';
