import { callNumberText, type CallNumber } from '../callnumbers';
import type { Holding } from './objects';

/** Where a holding stands and under what: a title has one holding for each. */
export const placeKey = (place: CallNumber & Pick<Holding, 'branch' | 'location'>): string =>
  `${place.branch} ${place.location} ${callNumberText(place)}`;
