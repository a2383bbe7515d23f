import type { JobState } from '@osier/contract';
import { counted, update } from '@osier/core/changes';
import { needsTarget, OUTCOME_NAMES, OUTCOMES, type Outcome } from '@osier/core/matching';
import type { StoredObject } from '@osier/core/kinds';
import { actSentence, type Act } from '@osier/core/acts';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import { deliveryJob } from './delivery-job';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { throughDelivery } from './in-chunks';
import { keptWork, type Totals } from '../jobs/kept-work';
import { mixed, object, string } from 'yup';
import { checkFacet, underFacet } from './queries.incoming';

/** The change of a record to a decision; null when it has no record to replace, merge into or attach to. */
function decided(row: StoredObject<'incoming'>, decision: Outcome, target?: number | null) {
  const { value } = row;
  const to = target ?? value.target;
  if (needsTarget(decision) && to === null) return null;
  return update('incoming', row, { ...value, decision, chosen: true, target: to });
}

/** Decides what is done with some records; a record that is to be replaced must be there. */
export const decide = (
  { store }: Services,
  person: number,
  id: number,
  ids: readonly number[],
  decision: Outcome,
  target?: number | null,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, (s) => planDecision(s, id, ids, decision, target));

async function planDecision(
  store: Store,
  id: number,
  ids: readonly number[],
  decision: Outcome,
  target?: number | null,
) {
  const rows = (await store.readMany('incoming', ids)).filter(
    (r) => r.value.delivery === id && r.value.state === 'waiting',
  );
  if (rows.length === 0) throw wrong('incoming', 'None of these records is still waiting.');
  if (target && !(await store.read('record', target)))
    throw wrong('target', `There is no record ${target} in the catalogue.`);
  const changes = rows.map((r) => decided(r, decision, target));
  const without = changes.filter((c) => c === null).length;
  if (without)
    throw wrong(
      'decision',
      `${counted(without, 'record')} has no match in the catalogue. Match it with a record first.`,
    );
  const did = decideAct('', decision, rows.length);
  return { did, changes: changes.filter((c) => c !== null) };
}

const decideAct = (delivery: string, outcome: Outcome, records: number, meanwhile?: number): Act => ({
  act: 'decide',
  names: { delivery },
  counts: { records, meanwhile },
  outcome,
});

/** Starts deciding for all that wait under a facet. */
export async function decideFacet(
  { jobs }: Services,
  person: number,
  delivery: { readonly id: number; readonly name: string; readonly waiting: number },
  facet: string,
  decision: Outcome,
): Promise<JobState> {
  checkFacet(facet);
  return jobs.begin(
    'decide-delivery',
    `Choosing “${OUTCOME_NAMES[decision]}” in ${delivery.name}`,
    person,
    { delivery: delivery.id, facet, decision },
    delivery.waiting,
  );
}

const decideWork = object({
  decision: mixed<Outcome>().oneOf(OUTCOMES).required(),
  facet: string().required(),
});

/** Job: decides for every waiting record that stood under the facet when its turn came. */
export const decideDelivery = deliveryJob(async (services, run, id, delivery) => {
  const { decision, facet } = keptWork(decideWork, run.work);
  const did = (t: Totals) => decideAct(delivery.name, decision, t.chosen ?? 0, t.meanwhile);
  const totals = await throughDelivery(services, run, {
    delivery: id,
    leaveOut: new Set(),
    did,
    async plan(chunk, store) {
      const under = await underFacet(
        store,
        chunk.map((c) => c.id),
        facet,
      );
      const sure = new Map(under.map((u) => [u.id, u.sure === 1]));
      const all = chunk.filter((c) => sure.has(c.id));
      // One record is paired with a doubtful match by looking at it, many at once are not.
      const clear = all.filter((c) => !needsTarget(decision) || sure.get(c.id) || c.value.chosen);
      const changes = clear.map((c) => decided(c, decision)).filter((c) => c !== null);
      return { changes, totals: { chosen: changes.length, without: all.length - changes.length } };
    },
  });
  const without = totals.without
    ? ` Left as they were, because no match is sure: ${counted(totals.without, 'record')}.`
    : '';
  return `${actSentence(did(totals))}.${without}`;
});
