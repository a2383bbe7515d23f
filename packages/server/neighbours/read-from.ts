import type { NeighbourAnswer } from '@osier/contract';
import type { Neighbour } from '@osier/core/neighbours';
import { recipeIfThere } from '../recipes/recipes';
import type { Services } from '../services';
import type { RawAnswer } from './ports';

/** What an answer of a neighbour has in it, read in a thread. */
export async function readFrom(
  { store, pool }: Services,
  neighbour: Neighbour,
  answer: RawAnswer,
): Promise<Omit<NeighbourAnswer, 'milliseconds'>> {
  const recipe = neighbour.recipe === '' ? null : await recipeIfThere(store, neighbour.recipe);
  const gone =
    neighbour.recipe !== '' && !recipe
      ? ['Its recipe is no longer there; the records are as they came.']
      : [];
  const { count, records, problem, told } = await pool.readAnswer({
    answer,
    house: await store.rulesNow(),
    recipe,
    source: neighbour.name,
  });
  if (problem !== null) return { state: 'failed', message: problem, told, count: 0, records: [] };
  return {
    state: records.length || count ? 'found' : 'none',
    message: count > 0 && records.length === 0 ? 'It has found something, but none of it can be read.' : '',
    told: [...told, ...gone],
    count,
    records: [...records],
  };
}
