export * from './endpoint';
export { schemaOf } from './answers';
export { api, ENDPOINTS } from './routes';
export * from './objects/acts';
export { recordIn } from './objects/marc';
export * from './objects/sent-record';
export * from './routes/catalogue';
export type { FurtherCounts, RecordRow, SearchAnswer, SearchFacetCounts } from './routes/found-answers';
export * from './routes/record-desk';
export * from './routes/copies';
export * from './routes/copy-lists';
export * from './routes/loan-figures';
export * from './routes/daybook';
export * from './routes/deliveries';
export type {
  DeliveryRow,
  IncomingRow,
  KeptRepair,
  IncomingDetail,
  IncomingPage,
  DeliverySummary,
  DeliveryReport,
  FindingKind,
} from './routes/delivery-answers';
export {
  decisionBody,
  incomingBody,
  settingsBody,
  takeBackBody,
  cleanBody,
  fixBody,
  acceptBody,
  acceptReviewBody,
  fixReviewBody,
  cleanReviewBody,
  takeBackReviewBody,
  type IncomingBody,
  type SettingsBody,
} from './routes/delivery-bodies';
export * from './routes/heading-bodies';
export * from './routes/heading-answers';
export * from './routes/headings';
export * from './routes/labels';
export * from './routes/links';
export * from './routes/live';
export * from './routes/book-lists';
export * from './routes/brief-records';
export * from './routes/neighbours';
export * from './routes/people';
export * from './routes/piles';
export * from './routes/browse';
export * from './routes/recipes';
export * from './routes/reviews';
export * from './routes/setup';
export * from './routes/searches';
export * from './routes/starters';
export * from './routes/stocktake-bodies';
export type {
  StocktakeRow,
  ScanAnswer,
  StocktakeRun,
  StockFindingRow,
  FindingPage,
  StocktakeReport,
  StocktakeDetail,
  StripPart,
  StretchReview,
  ShelfPage,
} from './routes/stocktake-answers';
export * from './routes/stocktakes';
export * from './routes/local-fields';
export * from './routes/registry';
export * from './routes/suppliers';
export * from './routes/today';
export * from './routes/withdrawal-bodies';
export type {
  PullRow,
  RegisterRow,
  UnionItem,
  WithdrawalList,
  WithdrawalListRow,
  WithdrawalRow,
} from './routes/withdrawal-answers';
export * from './routes/withdrawals';
export { isCommon } from './common-passwords';
export { isFit } from './values';
export * from './permissions';
