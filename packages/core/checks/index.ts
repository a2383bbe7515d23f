export type { Check, Finding, Fix, Severity } from './finding';
export { placed } from './finding';
export { CHECKS, checkRecord } from './run';
export { initialArticle } from './initial-article';
export { lowerAfterArticle } from './title';
export { subjectKey } from './subjects';
export { fixAll } from './fix-all';
