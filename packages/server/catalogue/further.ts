import type { FurtherCounts } from '@osier/contract';
import type { Services } from '../services';
import { foundBy, type SearchPlace } from './found';
import {
  countByDelivery,
  countByHeading,
  countByLocation,
  countByPerson,
  countBySupplier,
  countByYear,
} from './queries.facets';
import { amongHits, hitsOf } from './queries.hits';

/** Values of each kind that are told. */
const MOST = 12;

/** By what a search may be narrowed further, each value with how many of what it finds have it. */
export async function furtherCounts(
  { store }: Services,
  place: SearchPlace,
  signal?: AbortSignal,
): Promise<FurtherCounts> {
  const found = await foundBy(store, place, signal);
  const hits = await hitsOf(store, found);
  const counted = amongHits(hits);
  const [{ subjects, names }, years] = await Promise.all([
    countByHeading(store, counted, MOST),
    countByYear(store, counted, MOST),
  ]);
  const [locations, suppliers, deliveries, people] = await Promise.all([
    countByLocation(store, counted, MOST),
    countBySupplier(store, counted, MOST),
    countByDelivery(store, counted, MOST),
    countByPerson(store, counted, MOST),
  ]);
  return {
    further: [
      { of: 'year', index: 'year', values: years },
      { of: 'subject', index: 'heading', values: subjects },
      { of: 'name', index: 'heading', values: names },
      { of: 'location', index: 'location', values: locations },
      { of: 'supplier', index: 'supplier', values: suppliers },
      { of: 'delivery', index: 'delivery', values: deliveries },
      { of: 'changedby', index: 'changedby', values: people },
    ],
    covers: hits.isMany ? hits.n : null,
  };
}
