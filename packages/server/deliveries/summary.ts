import type { DeliverySummary } from '@osier/contract';
import { CHECKS } from '@osier/core/checks';
import type { Outcome } from '@osier/core/matching';
import { notFound } from '../http/problem';
import type { Services } from '../services';
import { countByDecision, countFindings } from './queries';
import { settingsFor } from './settings';

const DONE: Readonly<Record<Outcome, 'added' | 'replaced' | 'merged' | 'copiesOnly'>> = {
  add: 'added',
  replace: 'replaced',
  merge: 'merged',
  copies: 'copiesOnly',
  // Neither is accepted; older stores may say so all the same.
  skip: 'added',
  ask: 'added',
};

/** The counts of a delivery that a person checks at a glance, and its findings before and after cleaning. */
export async function deliverySummary({ store }: Services, id: number): Promise<DeliverySummary> {
  const delivery = await store.read('delivery', id);
  if (!delivery) throw notFound(`Delivery ${id}`);
  const reading = await store.table('readings').first({ where: { delivery: id } });
  const groups = await countByDecision(store, id);
  const waiting: Record<Outcome, number> = { add: 0, replace: 0, merge: 0, copies: 0, skip: 0, ask: 0 };
  const done = { added: 0, replaced: 0, merged: 0, copiesOnly: 0, skipped: 0 };
  const copies = { waiting: 0, problems: 0, made: 0 };
  for (const g of groups) {
    if (g.state === 'waiting') {
      waiting[g.decision] += g.n;
      copies.waiting += g.copies;
      copies.problems += g.problems;
    } else if (g.state === 'skipped') done.skipped += g.n;
    else {
      done[DONE[g.decision]] += g.n;
      copies.made += g.copies;
    }
  }
  const read = groups.reduce((n, g) => n + g.n, 0);
  return {
    id,
    version: delivery.version,
    sheet: delivery.value.sheet ?? null,
    settings: settingsFor(delivery.value),
    read,
    unreadable: reading?.unreadable ?? 0,
    waiting,
    done,
    copies,
    findings: await findingsOf(store, id),
    accepted: read - groups.filter((g) => g.state === 'waiting').reduce((n, g) => n + g.n, 0),
  };
}

async function findingsOf(store: Services['store'], id: number): Promise<DeliverySummary['findings']> {
  const rows = await countFindings(store, id);
  const titles = new Map(CHECKS.map((c) => [c.rule, c.title]));
  const found = new Map<
    string,
    Pick<DeliverySummary['findings'][number], 'rule' | 'title' | 'severity'> &
      Record<'before' | 'after', number>
  >();
  for (const { at, rule, severity, n } of rows) {
    const one = found.get(rule) ?? { rule, title: titles.get(rule) ?? rule, severity, before: 0, after: 0 };
    one[at] += n;
    found.set(rule, one);
  }
  return [...found.values()].sort((a, b) => b.before - a.before || (a.rule < b.rule ? -1 : 1));
}
