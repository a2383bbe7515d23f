export type { FindIndex, FindWhere } from './indexes';
export { FIND_INDEXES, indexNamed } from './indexes';
export type { Comparison, FindLeaf, FindPlan, FindProblem, FindWord } from './plan';
export { isPlan } from './plan';
export { planOf, planOfText } from './plan-of';
export type { Findable } from './evaluate';
export { isFound } from './evaluate';
export { withoutArticle } from './initial-article';
export { isQueryText } from './query-text';
