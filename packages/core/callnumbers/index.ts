export type { Scheme } from './scheme';
export { INDICATOR_OF, SCHEME_NAMES, schemeNamed, schemeOfIndicator, SCHEMES } from './scheme';
export type { LcCallNumber } from './lc';
export { lcKey, readLc } from './lc';
export type { BehindClass, PartKind } from './behind-class';
export { numbersPadded, partsBehind } from './behind-class';
export type { PrefixOrder } from './prefix-order';
export { prefixKey, prefixMark, typedPrefix } from './prefix-order';
export type { DeweyClass } from './dewey';
export { cutDewey, deweyKey, readDewey } from './dewey';
export type { CallNumber, CallNumberPart, KeyRange } from './shelf-key';
export {
  byKey,
  callNumberDoubt,
  callNumberFault,
  callNumberText,
  explainCallNumber,
  isInRange,
  isUnreadKey,
  keyRange,
  shelfKey,
  shelfKeyOf,
  shelfPlaceOf,
} from './shelf-key';
export { cutterNumber, markLetters, markSource } from './author-mark';
export type { AuthorMark, CallNumberRule, MarkedBy, RuleWorks } from './call-number-rule';
export { AUTHOR_MARKS, callNumberRuleProblems, FIRST_RULE, MARKED_BY, RULE_WORKS } from './call-number-rule';
export type { CallNumberOffer, CallNumberPlace, HouseStyle } from './house-style';
export { authorMark, isOfWork, offerCallNumbers, ruleFor } from './house-style';
