import { sameValue, type Change, type ChangeSet } from '@osier/core/changes';
import type { Heading } from '@osier/core/headings';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { UniqueConstraintError } from 'sequelize';
import type { Transaction } from './database';
import { ConflictError } from './conflict';
import { indexHeadings, indexRecords } from './index-records';
import { insertRows } from './insert';
import { KINDS, type Kind, type Objects } from './kinds';
import type { Store } from './store';

/** An act to commit: its change set and how the daybook tells it. */
export interface Act {
  readonly act: string;
  readonly person: number;
  readonly sentence: string;
  readonly changes: ChangeSet;
  /** Another part of an entry that long work has begun. */
  readonly entry?: number;
  readonly undoes?: number;
  /** More to do in the same transaction, such as keeping a job's cursor. */
  readonly also?: (tx: Transaction, entry: number) => Promise<void>;
}

/**
 * The only way the catalogue changes: checks versions, writes rows, keys and words, and the daybook entry, in one
 * transaction. Throws a ConflictError that names what has changed since; then nothing is written.
 */
export async function commit(store: Store, act: Act): Promise<number> {
  const house = await store.rulesNow();
  try {
    return await store.write((tx) => commitWithin(store, act, house, tx));
  } catch (error) {
    if (error instanceof UniqueConstraintError) throw await takenBarcode(store, act.changes, error);
    throw error;
  }
}

/** Commit as part of a transaction that is already open. */
export async function commitWithin(
  store: Store,
  act: Act,
  house: HouseRules,
  tx: Transaction,
): Promise<number> {
  const changes = act.changes.filter((c) => !sameValue(c.before, c.after));
  await checkVersions(store, changes, tx);
  const byKind = new Map<Kind, Change[]>();
  for (const change of changes) {
    const kind = change.kind as Kind;
    byKind.set(kind, [...(byKind.get(kind) ?? []), change]);
  }
  for (const [kind, part] of byKind) await removeRows(store, kind, part, tx);
  for (const [kind, part] of byKind) await writeRows(store, kind, part, house, tx);
  await reindex(store, byKind, tx);
  const entry = await writeEntry(store, act, changes, tx);
  await act.also?.(tx, entry);
  return entry;
}

async function checkVersions(store: Store, changes: ChangeSet, tx: Transaction): Promise<void> {
  const byKind = new Map<Kind, Change[]>();
  for (const c of changes) byKind.set(c.kind as Kind, [...(byKind.get(c.kind as Kind) ?? []), c]);
  const stale: Change[] = [];
  for (const [kind, part] of byKind) {
    const { table, keepsRemoved } = KINDS[kind];
    const rows = await store.rows<{ id: number; version: number }>(
      `SELECT id, version FROM ${table} WHERE ${keepsRemoved ? 'gone = 0 AND ' : ''}id IN (:ids)`,
      { ids: part.map((c) => c.id) },
      tx,
    );
    const versions = new Map(rows.map((r) => [r.id, r.version]));
    for (const c of part)
      if ((c.before === null ? undefined : c.version) !== versions.get(c.id)) stale.push(c);
  }
  if (stale.length === 0) return;
  const found = await Promise.all(stale.slice(0, 20).map((c) => store.read(c.kind as Kind, c.id, tx)));
  throw new ConflictError(stale.map((c, i) => ({ kind: c.kind, id: c.id, current: found[i] ?? null })));
}

async function removeRows(
  store: Store,
  kind: Kind,
  changes: readonly Change[],
  tx: Transaction,
): Promise<void> {
  const ids = changes.filter((c) => c.after === null).map((c) => c.id);
  if (ids.length === 0) return;
  const { table, keepsRemoved } = KINDS[kind];
  await store.run(
    keepsRemoved
      ? `UPDATE ${table} SET gone = 1 WHERE id IN (:ids)`
      : `DELETE FROM ${table} WHERE id IN (:ids)`,
    { ids },
    tx,
  );
}

async function writeRows<K extends Kind>(
  store: Store,
  kind: K,
  changes: readonly Change[],
  house: HouseRules,
  tx: Transaction,
): Promise<void> {
  const { table, columns, compute, keepsRemoved } = KINDS[kind];
  const rows = changes
    .filter((c) => c.after !== null)
    .map((c) => [c.id, c.version + 1, JSON.stringify(c.after), ...compute(c.after as Objects[K], house)]);
  if (rows.length === 0) return;
  const all = ['id', 'version', 'value', ...columns];
  const set = [...all.slice(1).map((c) => `${c} = excluded.${c}`), ...(keepsRemoved ? ['gone = 0'] : [])];
  // An update keeps the row, so that a barcode taken by another copy is still an error.
  await insertRows(store, 'INSERT', table, all, rows, tx, `ON CONFLICT (id) DO UPDATE SET ${set.join(', ')}`);
}

async function reindex(store: Store, byKind: ReadonlyMap<Kind, Change[]>, tx: Transaction): Promise<void> {
  const records = byKind.get('record');
  if (records) {
    const isNew = new Set(records.filter((c) => c.before === null && c.version === 0).map((c) => c.id));
    await indexRecords(store, new Map(records.map((c) => [c.id, c.after as MarcRecord | null])), isNew, tx);
  }
  const headings = byKind.get('heading');
  if (headings)
    await indexHeadings(store, new Map(headings.map((c) => [c.id, c.after as Heading | null])), tx);
}

async function writeEntry(store: Store, act: Act, changes: ChangeSet, tx: Transaction): Promise<number> {
  let entry = act.entry;
  if (entry === undefined) {
    await store.run(
      'INSERT INTO daybook (at, person, act, sentence, objects, undoes) VALUES (:at, :person, :act, :sentence, :objects, :undoes)',
      {
        at: new Date().toISOString(),
        person: act.person,
        act: act.act,
        sentence: act.sentence,
        objects: changes.length,
        undoes: act.undoes ?? null,
      },
      tx,
    );
    entry = (await store.row<{ id: number }>('SELECT last_insert_rowid() AS id', {}, tx))!.id;
  } else {
    await store.run(
      'UPDATE daybook SET sentence = :sentence, objects = objects + :objects WHERE id = :entry',
      { sentence: act.sentence, objects: changes.length, entry },
      tx,
    );
  }
  if (act.undoes !== undefined)
    await store.run(
      'UPDATE daybook SET undone_by = :entry WHERE id = :undoes',
      { entry, undoes: act.undoes },
      tx,
    );
  if (changes.length === 0) return entry;
  const part = (await store.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM daybook_parts WHERE entry = :entry',
    { entry },
    tx,
  ))!.n;
  await store.bind(
    'INSERT INTO daybook_parts (entry, part, changes) VALUES ($1, $2, $3)',
    [entry, part, JSON.stringify(changes)],
    tx,
  );
  await insertRows(
    store,
    'INSERT OR IGNORE',
    'daybook_objects',
    ['kind', 'object', 'entry'],
    changes.map((c) => [c.kind, c.id, entry]),
    tx,
  );
  return entry;
}

async function takenBarcode(store: Store, changes: ChangeSet, error: Error): Promise<Error> {
  const barcodes = changes
    .filter((c) => c.kind === 'copy' && c.after !== null)
    .map((c) => (c.after as { barcode: string }).barcode);
  if (barcodes.length === 0) return error;
  const taken = await store.select('copy', 'barcode IN (:barcodes)', { barcodes });
  return taken.length ? new ConflictError(taken.map((t) => ({ kind: 'copy', id: t.id, current: t }))) : error;
}
