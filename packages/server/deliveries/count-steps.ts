import type { StepsBody } from '@osier/contract';
import { checkerFor } from '@osier/core/checks';
import { recipeRunner } from '@osier/core/recipes';
import { notFound } from '../http/problem';
import { sound } from '../recipes/recipes';
import type { Services } from '../services';
import { waitingRecords } from './incoming-records';
import { supplierOf } from './settings';

/** The waiting records that are looked through; of a larger delivery these stand for all. */
const MOST = 5000;

/** On how many waiting records of a delivery each of some steps would do something, each by itself. */
export async function countSteps(
  { store: { aside: store } }: Services,
  id: number,
  { steps, besides }: StepsBody,
  signal: AbortSignal,
): Promise<{ counts: number[]; of: number; isAll: boolean }> {
  const delivery = await store.read('delivery', id);
  if (!delivery) throw notFound(`Delivery ${id}`);
  const checker = checkerFor(await store.rulesNow());
  const runners = sound({ name: 'By doing', steps }).steps.map((step) =>
    recipeRunner({ id: '', name: '', steps: [step] }, checker, supplierOf(delivery.value)),
  );
  const counts = runners.map(() => 0);
  let of = 0;
  for await (const piece of waitingRecords(store, id)) {
    signal.throwIfAborted();
    for (const row of piece) {
      if (row.id === besides) continue;
      of += 1;
      runners.forEach((run, i) => {
        if (run(row.fields.value.marc).touched.length) counts[i]! += 1;
      });
    }
    if (of >= MOST) return { counts, of, isAll: false };
  }
  return { counts, of, isAll: true };
}
