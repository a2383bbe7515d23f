import type { FurtherCounts } from '@osier/contract';
import type { Services } from '../services';
import { foundBy, type SearchPlace } from './found';
import {
  countByDelivery,
  countByHeading,
  countByPerson,
  countBySupplier,
  countByYear,
} from './queries.facets';
import { firstOf } from './queries.found';
import { countAtMost, MOST_RANKED } from './queries.pages';

/** Values of each kind that are told. */
const MOST = 12;

/** By what a search may be narrowed further, each value with how many of what it finds have it. */
export async function furtherCounts(
  { store }: Services,
  place: SearchPlace,
  signal?: AbortSignal,
): Promise<FurtherCounts> {
  const found = await foundBy(store, place, signal);
  const isMany = (await countAtMost(store, found, MOST_RANKED)) > MOST_RANKED;
  const counted = isMany ? firstOf(found, MOST_RANKED) : found;
  const { subjects, names } = await countByHeading(store, counted, MOST);
  return {
    further: [
      { of: 'year', index: 'year', values: await countByYear(store, counted, MOST) },
      { of: 'subject', index: 'heading', values: subjects },
      { of: 'name', index: 'heading', values: names },
      { of: 'supplier', index: 'supplier', values: await countBySupplier(store, counted, MOST) },
      { of: 'delivery', index: 'delivery', values: await countByDelivery(store, counted, MOST) },
      { of: 'changedby', index: 'changedby', values: await countByPerson(store, counted, MOST) },
    ],
    covers: isMany ? MOST_RANKED : null,
  };
}
