export type { LcCallNumber } from './lc';
export { lcKey, numbersPadded, readLc } from './lc';
export type { DeweyClass } from './dewey';
export { cutDewey, deweyKey, readDewey } from './dewey';
export type { CallNumber, Scheme } from './shelf-key';
export { byKey, callNumberText, shelfKey, shelfKeyOf } from './shelf-key';
export type { CallNumberOffer } from './offer';
export { cutterFor, offerCallNumbers } from './offer';
