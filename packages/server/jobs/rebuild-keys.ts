import { counted } from '@osier/core/changes';
import { number, object, string } from 'yup';
import { indexSize, oldRecordKeys, recordKeysAnew } from '../projections/record-keys';
import { areShelfKeysOld, shelfKeysAnew } from '../projections/shelf-keys';
import { beginMakingHeadings } from '../headings/make-headings';
import { totals } from '../projections/counts';
import type { Services } from '../services';
import type { JobWork } from './jobs';
import { keptWork } from './kept-work';

/** Who is named for work that nobody asked for. */
const OSIER = 0;

/** Begins bringing the keys of records to today's rules, where they are older and nothing is at it already. */
export async function beginRebuildingKeys({ store, jobs }: Services): Promise<void> {
  if (jobs.running().some((j) => j.kind === 'rebuild-keys')) return;
  const { columns, index } = await oldRecordKeys(store);
  if (columns || index) {
    const { records } = await totals(store);
    await jobs.begin('rebuild-keys', 'Updating the search keys of all records', OSIER, {}, records);
  } else if (await areShelfKeysOld(store))
    await jobs.begin('rebuild-keys', 'Putting all call numbers in order', OSIER, {}, null);
}

/** Begins it at once when the library gives its prefixes another order. Gives the way to stop listening. */
export const orderWhenRulesChange = (services: Services): (() => void) =>
  services.store.feed.listen(({ kinds }) => {
    if (!('house' in kinds)) return;
    beginRebuildingKeys(services).catch((error: unknown) =>
      services.log.error({ err: error }, 'putting call numbers in order was not begun'),
    );
  });

/** Puts all call numbers in order where they are not, and again where the order was changed meanwhile. */
async function inOrder({ aside }: Services['store'], stop: () => boolean): Promise<void> {
  while (!stop() && (await areShelfKeysOld(aside))) await shelfKeysAnew(aside, stop);
}

const cursor = object({
  place: number().integer().default(0),
  done: number().integer().default(0),
  rules: string().default(''),
});

/** Job: computes the keys of all records anew; one that is cancelled, or killed, goes on at the next start. */
export const rebuildKeys =
  (services: Services): JobWork =>
  async (run) => {
    const { store } = services;
    await inOrder(store, run.cancelled);
    if (run.cancelled()) return null;
    const { columns, index } = await oldRecordKeys(store);
    if (!columns && !index) return 'Updated the places of all holdings on the shelf.';
    const from = keptWork(cursor, run.cursor);
    const began = Date.now();
    const n = await recordKeysAnew(
      store.aside,
      from,
      (at, tx) => run.keep({ ...at }, at.done, tx),
      run.cancelled,
    );
    await inOrder(store, run.cancelled);
    if (run.cancelled()) return null;
    await beginMakingHeadings(services);
    const took = Math.max(1, Math.round((Date.now() - began) / 1000));
    const size = (await indexSize(store.aside)) / 1_000_000;
    return `Updated the search keys of ${n.toLocaleString('en-GB')} records in ${counted(took, 'second')}; the index of words has ${size.toFixed(1)} MB.`;
  };
