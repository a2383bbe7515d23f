import { invert, rebase, type Conflict, type Standing } from '@osier/core/changes';
import type { Change, ChangeSet } from '@osier/core/kinds';
import type { Transaction } from './database';
import { commitWithin } from './commit';
import { NothingChanged } from './conflict';
import { headingsInUse } from './in-use';
import { childrenIn, fieldOf } from './hanging';
import { keyOf } from './entry-parts';
import type { Kind } from '@osier/core/kinds';
import { readChanges } from './read-changes';
import type { Store } from './store';

/** The change set of an entry, in the order it was done. */
export async function entryChanges(store: Store, entry: number, tx?: Transaction): Promise<ChangeSet> {
  const parts = await store.rows<{ changes: string }>(
    'SELECT changes FROM daybook_parts WHERE entry = :entry ORDER BY part',
    { entry },
    tx,
  );
  return parts.flatMap((p) => readChanges(p.changes));
}

/** What taking an entry back would do, and what stands in the way. The same code serves the review and the act. */
export async function undoPlan(
  store: Store,
  entry: number,
  tx?: Transaction,
): Promise<{ changes: ChangeSet; conflicts: Conflict[] }> {
  return planOf(store, invert(await entryChanges(store, entry, tx)), tx);
}

/**
 * The same for any inverse change set, such as a part of an entry; `alsoTouched` are records that other parts of the same act
 * change, so that they keep no heading in use.
 */
export async function planOf(
  store: Store,
  inverse: ChangeSet,
  tx?: Transaction,
  alsoTouched: ReadonlySet<number> = new Set(),
): Promise<{ changes: ChangeSet; conflicts: Conflict[] }> {
  const standing = new Map<string, Standing>();
  const ids = new Map<Kind, number[]>();
  for (const c of inverse) ids.set(c.kind, [...(ids.get(c.kind) ?? []), c.id]);
  for (const [kind, of] of ids) {
    for (const object of await store.readMany(kind, [...new Set(of)], tx))
      standing.set(`${kind} ${object.id}`, { version: object.version, value: object.value });
  }
  const last = new Map(inverse.map((c) => [`${c.kind} ${c.id}`, c.version]));
  const planned = rebase(
    inverse,
    (kind, id) => standing.get(`${kind} ${id}`) ?? { version: last.get(`${kind} ${id}`) ?? 0, value: null },
  );
  const kept = await withoutHeadingsInUse(store, planned.changes, tx, alsoTouched);
  const changes = await withoutRepeats(store, kept);
  return {
    changes,
    conflicts: [...planned.conflicts, ...(await dependants(store, changes))],
  };
}

/** A heading that an act made stays when records that the act did not touch carry it by now. */
async function withoutHeadingsInUse(
  store: Store,
  changes: ChangeSet,
  tx: Transaction | undefined,
  alsoTouched: ReadonlySet<number>,
): Promise<ChangeSet> {
  const going = changes.filter((c) => c.kind === 'heading').filter((c) => c.after === null);
  const touched = [...changes.filter((c) => c.kind === 'record').map((c) => c.id), ...alsoTouched];
  const inUse = await headingsInUse(
    store,
    going.flatMap((c) => c.before ?? []),
    touched,
    tx,
  );
  const staying = new Set<Change>(going.filter((_, i) => inUse.has(i)));
  return changes.filter((c) => !staying.has(c));
}

/** What lay on a pile, and was put on it again since, does not come back twice. */
export async function withoutRepeats(store: Store, changes: ChangeSet): Promise<ChangeSet> {
  const back = changes.filter((c) => c.kind === 'piled').filter((c) => c.before === null);
  if (back.length === 0) return changes;
  const rows = await store.rows<{ id: number }>(
    `SELECT v.value ->> 3 AS id FROM json_each(:back) v JOIN piled p ON p.pile = v.value ->> 0 AND p.kind = v.value ->> 1
       AND p.object = v.value ->> 2 AND p.id <> v.value ->> 3`,
    {
      back: JSON.stringify(
        back.flatMap(({ id, after }) => (after ? [[after.pile, after.kind, after.object, id]] : [])),
      ),
    },
  );
  const repeated = new Set(rows.map((r) => r.id));
  return changes.filter((c) => !(c.kind === 'piled' && repeated.has(c.id)));
}

/** Things that would lose what they hang on: a record with holdings, a holding with copies, a delivery with accepted records. */
async function dependants(store: Store, changes: ChangeSet): Promise<Conflict[]> {
  const found: Conflict[] = [];
  const after = new Map(changes.map((c) => [keyOf(c), c.after]));
  const going = changes.filter((c) => c.after === null);
  for (const kind of new Set(going.map((c) => c.kind))) {
    const ids = going.filter((c) => c.kind === kind).map((c) => c.id);
    for (const { id, child, childId, field } of await childrenIn(store, kind, ids)) {
      // A child that this very plan takes away, or back to another parent, does not stand in the way.
      const key = keyOf({ kind: child, id: childId });
      if (after.has(key) && fieldOf(after.get(key), field) !== id) continue;
      found.push({ kind, id, expected: null, found: null, dependsOn: child });
    }
  }
  return found;
}

/** Takes an entry back whole. Gives the new entry, or the conflicts and nothing done. */
export async function undoEntry(
  store: Store,
  entry: number,
  person: number,
  sentence: string,
): Promise<{ entry: number } | { conflicts: Conflict[] }> {
  return store.write(async (tx) => {
    const inside = store.within(tx);
    const { changes, conflicts } = await undoPlan(inside, entry);
    if (conflicts.length) return { conflicts };
    const act = { act: 'undo', person, sentence, changes, undoes: entry };
    const done = await commitWithin(inside, act, tx);
    if (done === null) throw new NothingChanged();
    return { entry: done };
  });
}
