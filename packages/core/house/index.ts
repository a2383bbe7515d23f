export type { HouseRules, Registry } from './rules';
export { allLimits, LAST_COPY, NO_LIMITS } from './withdrawal-limits';
export type { KeptLimits, LastCopy, WithdrawalLimits } from './withdrawal-limits';
export { DEFAULT_HOUSE, houseNow, isProtected } from './rules';
