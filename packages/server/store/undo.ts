import type { Conflict } from '@osier/core/changes';
import type { Change, ChangeSet, Kind } from '@osier/core/kinds';
import { commitWithin } from './commit';
import { NothingChanged } from './conflict';
import { entryIndex, type EntryIndex, type Indexed } from './entry-index';
import { keyOf } from './entry-parts';
import { actUndoing } from './kept-acts';
import type { Store } from './store';
import { takeable, type Taking } from './takeable';

/** What taking something back does, and what stands in the way of it. */
export interface UndoPlan {
  readonly objects: readonly Indexed[];
  readonly changes: ChangeSet;
  readonly conflicts: readonly Conflict[];
}

/**
 * What taking an act back, or a part of it, does: the one way in which anything is undone, whether an entry, a chunk of a
 * large one, or some records of a delivery. The review and the act ask the same.
 */
export async function undoPlan(store: Store, index: EntryIndex, taking: Taking = {}): Promise<UndoPlan> {
  const { objects, conflicts } = await takeable(store, index, taking);
  const changes = await fitted(store, await index.inverse(objects));
  return { objects, changes: await withoutRepeats(store, changes), conflicts };
}

/** Inverse changes fitted to the versions that stand in the store now. */
async function fitted(store: Store, changes: readonly Change[]): Promise<ChangeSet> {
  const ids = new Map<Kind, number[]>();
  for (const c of changes) ids.set(c.kind, [...(ids.get(c.kind) ?? []), c.id]);
  const versions = new Map<string, number>();
  for (const [kind, of] of ids)
    for (const { id, version } of await store.readMany(kind, of)) versions.set(keyOf({ kind, id }), version);
  return changes.map((c) => ({ ...c, version: versions.get(keyOf(c)) ?? c.version }));
}

/** What lay on a pile, and was put on it again since, does not come back twice. */
async function withoutRepeats(store: Store, changes: ChangeSet): Promise<ChangeSet> {
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

/** Takes an entry back whole, in one transaction. Gives the new entry, or the conflicts and nothing done. */
export async function undoEntry(
  store: Store,
  entry: number,
  person: number,
): Promise<{ entry: number } | { conflicts: readonly Conflict[] }> {
  return store.write(async (tx) => {
    const inside = store.within(tx);
    const { changes, conflicts } = await undoPlan(inside, await entryIndex(inside, [entry]));
    if (conflicts.length) return { conflicts };
    const did = await actUndoing(inside, entry);
    const done = await commitWithin(inside, { did, person, changes, undoes: entry }, tx);
    if (done === null) throw new NothingChanged();
    return { entry: done };
  });
}
