import type { JobState } from '@osier/contract';
import { counted, update, type Versioned } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import { needsTarget, type Outcome } from '@osier/core/matching';
import { quoted } from '../daybook/sentences';
import { wrong } from '../http/problem';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { inChunks } from './in-chunks';
import { facetCondition } from './incoming';
import { whole } from './settings';

/** How the daybook and the screens call what is done. */
export const DECISION_WORDS: Record<Outcome, string> = {
  add: 'add as new',
  replace: 'replace',
  merge: 'merge fields',
  copies: 'attach copies only',
  skip: 'skip',
  ask: 'ask me',
};

/** The change of a record to a decision; null when it has no record to replace, merge into or attach to. */
function decided(row: Versioned<Incoming>, decision: Outcome, target?: number | null) {
  const value = whole(row.value);
  const to = target ?? value.target;
  if (needsTarget(decision) && to === null) return null;
  return update<Incoming>('incoming', row, { ...value, decision, chosen: true, target: to });
}

/** Decides what is done with some records; a record that is to be replaced must be there. */
export async function decide(
  { store }: Services,
  person: number,
  id: number,
  ids: readonly number[],
  decision: Outcome,
  target?: number | null,
): Promise<{ entry: number; sentence: string }> {
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
      `${counted(without, 'record')} has nothing in the catalogue that it matches. Pair it with a record first.`,
    );
  const sentence = `Chose “${DECISION_WORDS[decision]}” for ${counted(rows.length, 'incoming record')}`;
  return {
    sentence,
    entry: await commit(store, {
      act: 'decide',
      person,
      sentence,
      changes: changes.filter((c) => c !== null),
    }),
  };
}

/** Starts deciding for all that wait under a facet. */
export async function decideFacet(
  { jobs }: Services,
  person: number,
  delivery: { readonly id: number; readonly name: string; readonly waiting: number },
  facet: string,
  decision: Outcome,
): Promise<JobState> {
  facetCondition(facet);
  return jobs.begin(
    'decide-delivery',
    `Choosing “${DECISION_WORDS[decision]}” in ${delivery.name}`,
    person,
    { delivery: delivery.id, facet, decision },
    delivery.waiting,
  );
}

/** Job: decides for every waiting record that stood under the facet when its turn came. */
export const decideDelivery =
  (services: Services) =>
  async (run: JobRun): Promise<string | null> => {
    const { store } = services;
    const id = Number(run.work.delivery);
    const decision = run.work.decision as Outcome;
    const delivery = await store.read('delivery', id);
    if (!delivery) return 'The delivery is no longer there.';
    const { condition, rule } = facetCondition(run.work.facet as string);
    const said = (n: number) =>
      `Chose “${DECISION_WORDS[decision]}” for ${counted(n, 'incoming record')} of ${quoted(delivery.value.name)}`;
    const totals = await inChunks(services, run, {
      act: 'decide',
      delivery: id,
      leaveOut: new Set(),
      sentence: (t) => said(t.chosen ?? 0),
      async plan(chunk) {
        const under = await store.rows<{ id: number }>(
          `SELECT i.id FROM incoming i JOIN incoming_read r ON r.incoming = i.id WHERE i.id IN (:ids) AND ${condition}`,
          { ids: chunk.map((c) => c.id), rule },
        );
        const chosen = new Set(under.map((u) => u.id));
        const all = chunk.filter((c) => chosen.has(c.id)).map((c) => decided(c, decision));
        const changes = all.filter((c) => c !== null);
        return { changes, totals: { chosen: changes.length, without: all.length - changes.length } };
      },
    });
    const without = totals.without
      ? ` ${counted(totals.without, 'record')} matches nothing in the catalogue and was left as it was.`
      : '';
    return `${said(totals.chosen ?? 0)}.${without}`;
  };
