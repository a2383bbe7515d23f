export type { Check, Finding, Fix, Group, Severity } from './finding';
export { CHECKS, CHECKS_VERSION } from './all';
export type { Checker } from './run';
export { checkerFor, checkRecord, TOGETHER } from './run';
export { fixAll } from './fix-all';
export { initialArticle } from './initial-article';
export { asHouseHas } from './title/capital-after-article';
export { subjectKey } from './subject-key';
export { withoutParts } from './without-parts';
