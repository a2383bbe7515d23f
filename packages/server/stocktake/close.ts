import type { JobState, Review } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { counted, update } from '@osier/core/changes';
import { number, object } from 'yup';
import { today } from '../day';
import { beginReview, stillAsReviewed } from '../http/reviewed';
import { CHUNK, inChunks, type ChunkPlan } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import { countAsked, keepLoans, unseenBehind } from '../projections/stocktake-loans';
import { copiesSeen } from '../projections/stocktake-places';
import { countKinds, countOutcomes } from '../projections/stocktake-views';
import { keepReport } from '../projections/stocktakes';
import { JobStopped } from '../jobs/jobs';
import type { Services } from '../services';
import { reckonFully, reckonSoFar } from './reckoning';
import { reportOf } from './report';
import { openStocktake } from './stocktake';

/** What closing a stocktake would do. */
export async function reviewClose(services: Services, id: number): Promise<Review> {
  const store = services.store.aside;
  const { value } = await openStocktake(store, id);
  await reckonSoFar(services, id);
  const shown = await beginReview(store);
  const outcomes = await countOutcomes(store, id);
  const kinds = await countKinds(store, id);
  const unsettled = kinds.reduce((n, k) => n + k.count - k.settled, 0);
  const all = Object.values(outcomes).reduce((n, x) => n + x, 0);
  const silent = services.loans.configured ? all - (await countAsked(store, id)) : 0;
  const skipped = outcomes.skipped ?? 0;
  shown.see(id, outcomes, kinds);
  return {
    sentence: `${counted(outcomes.stood ?? 0, 'copy', 'copies')} will get the day on which they were seen. The report of ${value.name} is kept.`,
    verb: 'Close',
    noun: { one: 'stocktake', many: 'stocktakes' },
    count: 1,
    consequences: [
      ...(skipped ? [`${counted(skipped, 'copy', 'copies')} stand on shelves that nobody scanned.`] : []),
      ...(unsettled
        ? [
            `${counted(unsettled, 'finding')} are not settled. They stay in the report, and cannot be settled here any more.`,
          ]
        : []),
      ...(silent > 0
        ? [
            `The loans desk has not answered for ${counted(silent, 'copy', 'copies')}. It is asked once more; what it is silent about counts as missing.`,
          ]
        : []),
      'Nothing can be scanned any more.',
    ],
    ...{ rows: [], more: 0 },
    token: shown.token(),
  };
}

/** Begins to close a stocktake. */
export async function beginClosing(
  services: Services,
  person: number,
  id: number,
  token?: string,
): Promise<JobState> {
  const { store, jobs } = services;
  const { value } = await openStocktake(store, id);
  await stillAsReviewed(store, token, () => reviewClose(services, id));
  return jobs.begin('close-stocktake', `Closing ${value.name}`, person, { stocktake: id });
}

const closeWork = object({ stocktake: number().integer().required() });
/** Before the first copy, and behind the last: the stocktake itself. */
const [FIRST, LAST] = [1, Number.MAX_SAFE_INTEGER];
type CloseRow = 'begin' | 'end' | { readonly copy: number; readonly day: string };

/**
 * Job: closes a stocktake as one entry. First nothing can be scanned any more; then the copies seen get the day of it, some hundreds a
 * transaction; last the loans desk is asked once more about what nobody scanned, all is reckoned, and the report is kept.
 */
export const closeStocktake =
  (services: Services): JobWork =>
  async (run) => {
    const { stocktake: id } = keptWork(closeWork, run.work);
    const store = services.store.aside;
    const named = await store.read('stocktake', id);
    if (!named || named.value.state === 'closed') throw new JobStopped('This stocktake is closed already.');
    await inChunks<CloseRow>({ ...services, store }, run, {
      did: (t) => closing(named.value.name, t),
      next: async (after, s) => {
        if (after === LAST) return [];
        if (after < FIRST) return ['begin'];
        const seen = await copiesSeen(s, id, after - FIRST, CHUNK);
        return seen.length ? seen : ['end'];
      },
      placeOf: (row) => (row === 'begin' ? FIRST : row === 'end' ? LAST : row.copy + FIRST),
      ask: async (chunk) => {
        if (!chunk.includes('end')) return;
        await askOnceMore(services, id);
        await reckonFully(services, id);
      },
      plan: async (chunk, s): Promise<ChunkPlan> => {
        const stocktake = await s.read('stocktake', id);
        if (!stocktake || stocktake.value.state === 'closed')
          throw new JobStopped('This stocktake was closed or deleted meanwhile.');
        if (chunk.includes('begin'))
          return {
            changes: [update('stocktake', stocktake, { ...stocktake.value, state: 'closing' as const })],
            totals: {},
          };
        if (chunk.includes('end')) {
          const outcomes = await countOutcomes(s, id);
          const kinds = await countKinds(s, id);
          const findings = kinds.reduce((n, k) => n + k.count, 0);
          const report = await reportOf(s, id);
          const closed = { ...stocktake.value, state: 'closed' as const, closedOn: today() };
          return {
            changes: [update('stocktake', stocktake, closed)],
            totals: {
              found: outcomes.stood ?? 0,
              expected: Object.values(outcomes).reduce((n, x) => n + x, 0),
              findings,
            },
            also: (tx) => keepReport(s, id, findings, report, tx),
          };
        }
        const days = new Map(chunk.flatMap((row) => (typeof row === 'object' ? [[row.copy, row.day]] : [])));
        const seen = await s.readMany('copy', [...days.keys()]);
        const changes = seen
          .filter((c) => (days.get(c.id) ?? '') > c.value.lastSeen)
          .map((c) => update('copy', c, { ...c.value, lastSeen: days.get(c.id) ?? '' }));
        return { changes, totals: { seen: changes.length } };
      },
    });
    return run.cancelled() ? null : `Closed ${named.value.name}.`;
  };

const closing = (name: string, t: Readonly<Record<string, number>>): Act => ({
  act: 'close-stocktake',
  names: { stocktake: name },
  counts: { found: t.found ?? 0, expected: t.expected ?? 0, findings: t.findings ?? 0 },
});

/** Asks the loans desk about every copy that nobody scanned. What it is silent about stays as it was last known. */
async function askOnceMore({ store: { aside: store }, loans }: Services, id: number): Promise<void> {
  if (!loans.configured) return;
  for (let after = ''; ;) {
    const barcodes = await unseenBehind(store, id, after, CHUNK);
    const last = barcodes.at(-1);
    if (last === undefined) return;
    const said = await loans.ask(barcodes, { anew: true });
    await keepLoans(store, id, barcodes, said);
    if (!said.heard) return;
    after = last;
  }
}
