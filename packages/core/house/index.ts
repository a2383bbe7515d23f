export type { HouseRules } from './rules';
export { LAST_COPY, NO_LIMITS, type LastCopy, type WithdrawalLimits } from './withdrawal-limits';
export { DEFAULT_HOUSE, houseNow, isProtected } from './rules';
