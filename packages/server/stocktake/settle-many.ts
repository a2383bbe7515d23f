import { FINDING_KINDS, SETTLEMENTS, type Settlement, type StockFindingKind } from '@osier/core/stocktake';
import { array, mixed, number, object, string } from 'yup';
import { CHUNK, inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import { personById } from '../people/queries';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { didSettle, settledBy, tallyOf } from './settle-plan';
import { openStocktake } from './stocktake';
import { sortedOut, staleOnes, type ToSettle } from './to-settle';

const settleWork = object({
  stocktake: number().integer().required(),
  location: string().default(''),
  items: array(
    object({
      finding: mixed<StockFindingKind>()
        .oneOf([...FINDING_KINDS])
        .required(),
      code: string().required(),
      act: mixed<Settlement>()
        .oneOf([...SETTLEMENTS])
        .required(),
    }).required(),
  ).required(),
});

/** Job: settles many findings, some hundreds a transaction. One that is none any more is left out. */
export const settleMany =
  (services: Services): JobWork =>
  async (run) => {
    const { stocktake: id, location, items } = keptWork(settleWork, run.work);
    const by = (await personById(services.store, run.person))?.name ?? '';
    const first = await openStocktake(services.store, id);
    const totals = await inChunks<number>({ ...services, store: services.store.aside }, run, {
      did: (t) =>
        didSettle(
          first,
          tallyOf((act) => t[act] ?? 0),
        ),
      next: (after) => Promise.resolve(items.slice(after, after + CHUNK).map((_, i) => after + i + 1)),
      placeOf: (row) => row,
      plan: async (chunk, store) => {
        const stocktake = await openStocktake(store, id);
        const target = location || stocktake.value.stretch.locations[0] || '';
        const still = await stillToSettle(
          store,
          id,
          chunk.map((row) => items[row - 1]!),
        );
        const { did, changes } = await settledBy(store, by, { stocktake, items: still, target });
        return {
          changes,
          totals: { ...(did.act === 'settle' ? did.counts : {}), left: chunk.length - still.length },
        };
      },
    });
    if (run.cancelled()) return null;
    const left = totals.left ? ` ${totals.left} had changed meanwhile and were left.` : '';
    return `Settled ${items.length - (totals.left ?? 0)} findings.${left}`;
  };

type Item = ReturnType<typeof settleWork.validateSync>['items'][number];

/** The findings of a chunk that can still be settled so. */
async function stillToSettle(store: Store, id: number, items: readonly Item[]): Promise<ToSettle[]> {
  const { items: found } = await sortedOut(store, id, { items: [...items], all: [] });
  const held = await store.readMany(
    'copy',
    found.flatMap((f) => f.finding.copy ?? []),
  );
  const stale = await staleOnes(store, id, found, new Map(held.map((c) => [c.id, c])));
  return found.filter((f) => !stale.has(f));
}
