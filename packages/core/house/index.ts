export type { HouseRules } from './rules';
export { DEFAULT_HOUSE, isProtected } from './rules';
