import type { ChangeSet } from '@osier/core/kinds';
import type { DoneBy } from './act';
import type { Transaction } from './database';
import { insertRows } from './insert';
import type { Store } from './store';

/** Writes what was done into the daybook: a new entry, or another part of one that long work has begun. Gives its number. */
export async function writeEntry(
  store: Store,
  act: DoneBy,
  changes: ChangeSet,
  tx: Transaction,
): Promise<number> {
  const entry = act.entry === undefined ? await begin(store, act, changes, tx) : act.entry;
  if (act.entry !== undefined)
    await store.run(
      'UPDATE daybook SET said = :said, objects = objects + :objects WHERE id = :entry',
      { said: JSON.stringify(act.did), objects: changes.length, entry },
      tx,
    );
  if (act.undoes !== undefined)
    await store.run(
      'UPDATE daybook SET undone_by = :entry WHERE id = :undoes',
      { entry, undoes: act.undoes },
      tx,
    );
  const { part } = (await store.row<{ part: number }>(
    'SELECT COUNT(*) AS part FROM daybook_parts WHERE entry = :entry',
    { entry },
  ))!;
  await store.bind(
    'INSERT INTO daybook_parts (entry, part, changes) VALUES ($1, $2, $3)',
    [entry, part, JSON.stringify(changes)],
    tx,
  );
  const touched = changes.map((c) => [c.kind, c.id, entry]);
  await insertRows(store, 'INSERT OR IGNORE', 'daybook_objects', ['kind', 'object', 'entry'], touched, tx);
  return entry;
}

async function begin(store: Store, act: DoneBy, changes: ChangeSet, tx: Transaction): Promise<number> {
  await store.run(
    'INSERT INTO daybook (at, person, act, sentence, said, objects, undoes) VALUES (:at, :person, :act, :sentence, :said, :objects, :undoes)',
    {
      at: new Date().toISOString(),
      person: act.person,
      act: act.did.act,
      sentence: '',
      said: JSON.stringify(act.did),
      objects: changes.length,
      undoes: act.undoes ?? null,
    },
    tx,
  );
  return (await store.row<{ id: number }>('SELECT last_insert_rowid() AS id'))!.id;
}
