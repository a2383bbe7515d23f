export type { Candidate, CopyCounts, Listed } from './candidate';
export type { Reason, ReasonCode, Verdict, VerdictKind, WeighTerms } from './verdict';
export { monthsBefore, OVERRULABLE, REASON_CODES, weighWithdrawals } from './verdict';
export type { WithdrawalListValue } from './list';
export type { TitleStock, WithdrawalChange, WithdrawalTerms } from './plan';
export { withdrawalPlan } from './plan';
export { candidatesIn, WEED_USES, type WeedCell, type WeedLimits, type WeedUse } from './weeding';
export { toldRecords, type Telling, type ToldPart, type ToldStatus, type ToldTitle } from './telling';
export { registerColumns, registerWords } from './register';
