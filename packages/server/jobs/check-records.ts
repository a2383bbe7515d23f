import { number, object, string } from 'yup';
import { totals } from '../projections/counts';
import { checkSomeAnew, findingsAreOld, markChecked, rulesOfChecking } from '../projections/record-findings';
import type { Services } from '../services';
import { OSIER, type JobWork } from './jobs';
import { keptWork } from './kept-work';

/** Begins checking all records anew, where they were checked by other rules and nothing is at it already. */
export async function beginCheckingRecords({ store, jobs }: Services): Promise<void> {
  if (jobs.running().some((j) => j.kind === 'check-records') || !(await findingsAreOld(store))) return;
  const { records } = await totals(store);
  await jobs.begin('check-records', 'Checking all records again', OSIER, {}, records);
}

/** Begins it at once when house rules or code lists have changed. Gives the way to stop listening. */
export const checkWhenRulesChange = (services: Services): (() => void) =>
  services.store.feed.listen(({ kinds }) => {
    if (!('house' in kinds) && !('lists' in kinds)) return;
    beginCheckingRecords(services).catch((error: unknown) =>
      services.log.error({ err: error }, 'checking all records was not begun'),
    );
  });

const cursor = object({
  place: number().integer().default(0),
  done: number().integer().default(0),
  rules: string().default(''),
});

/** Job: checks all records by the rules of today, and from the beginning when those change meanwhile. */
export const checkAllRecords =
  ({ store }: Services): JobWork =>
  async (run) => {
    let { place, done, rules } = keptWork(cursor, run.cursor);
    for (;;) {
      const now = await rulesOfChecking(store);
      if (rules !== now) [place, done, rules] = [0, 0, now];
      while (!run.cancelled()) {
        const before = done;
        const piece = await checkSomeAnew(store.aside, place, (last, n, tx) =>
          run.keep({ place: last, done: before + n, rules }, before + n, tx),
        );
        if (!piece) break;
        [place, done] = [piece.last, done + piece.n];
      }
      if (run.cancelled()) return null;
      if (await markChecked(store, rules)) return `Checked ${done.toLocaleString('en-GB')} records again.`;
    }
  };
