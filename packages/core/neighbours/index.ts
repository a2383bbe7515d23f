export type { LookedBy, Neighbour, NeighbourIndexes, Protocol, SruVersion } from './neighbour';
export {
  addressProblem,
  inOrder,
  inRounds,
  LOOKED_BY,
  NEW_NEIGHBOUR,
  PROTOCOLS,
  SRU_VERSIONS,
  USUAL_ATTRIBUTES,
  USUAL_INDEXES,
} from './neighbour';
export type { NotSought, Sought } from './sought';
export { isbn10From, isSought, readSought, soughtText } from './sought';
export { explainAddress, searchAddress, soughtCql } from './sru-request';
export type { SruAnswer, SruDiagnostic } from './sru-answer';
export { diagnosticText, readSruAnswer } from './sru-answer';
export type { Explained } from './explain';
export { readExplain, suggestedIndexes } from './explain';
export type { HouseTaste, Rating, Weighed, Worth } from './worth';
export { ratingOf, tasteOf, worthOf } from './worth';
export type { EditionGroup, WorkGroup } from './editions';
export { groupedByWork } from './editions';
export type { Copied } from './copied';
export { copiedRecord } from './copied';
export type { BookFacts } from './book';
export { bookFacts, withoutCover } from './book';
export type { BookRecord, BookState } from './book-list';
export { BOOK_STATES, chosenForBook } from './book-list';
export type { BriefState, Growth } from './growth';
export {
  BRIEF_DAYS,
  BRIEF_STATES,
  growthOf,
  grownRecord,
  refusedMarks,
  soughtFor,
  sourceMarks,
  typedFor,
} from './growth';
