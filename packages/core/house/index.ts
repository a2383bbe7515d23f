export type { HouseRules } from './rules';
export { DEFAULT_HOUSE, houseNow, isProtected } from './rules';
