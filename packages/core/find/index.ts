export type { FindIndex, FindWhere, HeadingColumn, HeadingWhere, WordColumn } from './indexes';
export { FIND_INDEXES, HEADING_INDEXES } from './indexes';
export type { FindLanguage } from './language';
export { OF_HEADINGS, OF_OTHERS, OF_RECORDS } from './language';
export type {
  AnyPlan,
  Comparison,
  FindLeaf,
  FindPlan,
  FindProblem,
  FindWord,
  HeadingLeaf,
  HeadingPlan,
  Plan,
  WordsLeaf,
} from './plan';
export { isJoined, isNot, isPlan } from './plan';
export { allWords, headingPlanOfTyped, planOf, planOfText, planOfTyped, typedWords } from './plan-of';
export type { Findable } from './evaluate';
export { isFound } from './evaluate';
export type { FindableHeading } from './heading-found';
export { isHeadingFound } from './heading-found';
export { holdsWords } from './holds';
export { withoutArticle } from './initial-article';
export { addressPlan } from './address-plan';
export { inShelfOrder } from './shelf-order';
export { isQueryText } from './query-text';
export type { FindOrder, Ordering } from './order-of';
export { FIND_ORDERS, orderOf, orderOfText } from './order-of';
export type { SavedOf, SavedSearch } from './saved-search';
export { SAVED_OF } from './saved-search';
export type { KnownWord } from './near-words';
export { meantWord, oneLetterOff } from './near-words';
export { narrowedQuery } from './narrowed-query';
