import { CHECKS_VERSION, type Checker } from '@osier/core/checks';
import type { MarcRecord } from '@osier/core/marc';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { Store } from '../store/store';
import type { Projection } from './projection';

const NAME = 'record-findings';
const AT_ONCE = 500;

interface Checked {
  readonly id: number;
  readonly value: MarcRecord;
}

/**
 * What the checks find in each record of the catalogue, by rule. A record is checked when it is written; when the house rules or the
 * code lists change, all are checked anew by a job, and until then stand as they were found.
 */
export const recordFindings: Projection = {
  name: 'record-findings-applied',
  version: 1,
  of: ['record', 'house', 'lists'],
  async apply(store, changes, tx) {
    if (changes.kinds.includes('house') || changes.kinds.includes('lists'))
      await store.run('UPDATE key_versions SET version = 0 WHERE name = :name', { name: NAME }, tx);
    const records = changes.of('record');
    if (records.length === 0) return;
    if (!changes.areNew('record'))
      await forget(
        store,
        records.map((c) => c.id),
        tx,
      );
    const written = records.flatMap((c) => (c.after === null ? [] : [{ id: c.id, value: c.after }]));
    await keep(store, written, await store.checkerNow(), tx);
  },
  async rebuild(store) {
    await store.write((tx) => store.run('DELETE FROM record_findings', {}, tx));
    for (let after = 0; ;) {
      const piece = await checkSomeAnew(store, after, () => Promise.resolve());
      if (!piece) return;
      after = piece.last;
    }
  },
};

const forget = (store: Store, ids: readonly number[], tx: Transaction): Promise<void> =>
  store.run(
    'DELETE FROM record_findings WHERE record IN (SELECT value FROM json_each(:ids))',
    { ids: JSON.stringify(ids) },
    tx,
  );

async function keep(
  store: Store,
  records: readonly Checked[],
  checker: Checker,
  tx: Transaction,
): Promise<void> {
  const found = checker.checkAll(records.map((r) => r.value));
  // Findings come worst first: the gravest of a rule stands for it.
  const rows = records.flatMap(({ id }, i) => {
    const rules = new Map<string, string>();
    for (const f of found[i] ?? []) if (!rules.has(f.rule)) rules.set(f.rule, f.severity);
    return [...rules].map(([rule, severity]) => [id, rule, severity]);
  });
  await insertRows(store, 'INSERT', 'record_findings', ['record', 'rule', 'severity'], rows, tx);
}

/** Whether records were checked by older checks, or by other house rules, than those of today. */
export async function findingsAreOld(store: Store): Promise<boolean> {
  const kept = await store.row<{ version: number }>('SELECT version FROM key_versions WHERE name = :name', {
    name: NAME,
  });
  return kept?.version !== CHECKS_VERSION;
}

/** Checks the records behind one anew, in one transaction with `also`; gives the last of them, null when there are no more. */
export const checkSomeAnew = (
  store: Store,
  after: number,
  also: (last: number, n: number, tx: Transaction) => Promise<void>,
): Promise<{ last: number; n: number } | null> =>
  store.write(async (tx) => {
    const inside = store.within(tx);
    const held = await inside.select('record', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
    const last = held.at(-1);
    if (!last) return null;
    await forget(
      inside,
      held.map((h) => h.id),
      tx,
    );
    await keep(inside, held, await inside.checkerNow(), tx);
    await also(last.id, held.length, tx);
    return { last: last.id, n: held.length };
  });

/** The rules by which records are checked, as a text that changes with them. */
export async function rulesOfChecking(store: Store): Promise<string> {
  const [house, lists] = [await store.house(), await store.lists()];
  return `${house.version} ${lists.version}`;
}

/** Says that all records are checked by these rules; false when the rules have changed meanwhile. */
export const markChecked = (store: Store, rules: string): Promise<boolean> =>
  store.write(async (tx) => {
    const inside = store.within(tx);
    if ((await rulesOfChecking(inside)) !== rules) return false;
    await inside.run(
      'INSERT INTO key_versions (name, version) VALUES (:name, :version) ON CONFLICT (name) DO UPDATE SET version = excluded.version',
      { name: NAME, version: CHECKS_VERSION },
      tx,
    );
    return true;
  });

/** How many records of the catalogue each check has found something in. */
export const countsOfFindings = (store: Store): Promise<{ value: string; n: number }[]> =>
  store.rows<{ value: string; n: number }>(
    'SELECT rule AS value, n FROM finding_counts WHERE n > 0 ORDER BY n DESC, rule',
  );
