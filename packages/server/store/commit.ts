import { sameValue } from '@osier/core/changes';
import type { Change, Kind } from '@osier/core/kinds';
import { refuseHangingOnNothing } from './hanging';
import { actSentence } from '@osier/core/acts';
import type { DoneBy, Planned } from './act';
import { changesByKind, type ChangesByKind } from './changes-by-kind';
import { collisions, isCollision } from './collisions';
import { ChangedSince, ConflictError, NothingChanged, type Stale } from './conflict';
import type { Transaction } from './database';
import { applyProjections } from '../projections';
import { tableOf } from './tables';
import type { Store } from './store';
import { changedBy } from './feed';
import { writeEntry } from './write-entry';
import { passOn, removeRows, writeRows } from './write-rows';

/**
 * The only way the catalogue changes: checks versions, writes rows, keys and words, and the daybook entry, in one
 * transaction. Throws a ConflictError that names what has changed since; then nothing is written.
 */
export async function commit(store: Store, act: DoneBy): Promise<number> {
  return store.write(async (tx) => entryOf(await commitWithin(store.within(tx), act, tx)));
}

const entryOf = (entry: number | null): number => {
  if (entry === null) throw new NothingChanged();
  return entry;
};

/**
 * Makes a plan and commits it, so that whatever the plan has read is still so when its change set is written. The plan is made
 * beside the others first. Nothing written meanwhile: it is true, and is written. Else it is made once more inside the
 * transaction, where nobody else writes. `plan` reads through the store it is given and asks nothing outside; it may
 * be called twice. What it refuses then, and did not before, is told as changed since (409).
 */
export async function commitPlan<P extends Planned>(
  store: Store,
  person: number,
  plan: (store: Store) => Promise<P>,
): Promise<Told<P> & { readonly entry: number }> {
  const done = await tryPlan(store, person, plan);
  return { ...done, entry: entryOf(done.entry) };
}

/** What a plan tells beside its change set, once that is committed. */
type Told<P extends Planned> = Omit<P, keyof Planned> & { readonly sentence: string };

/** A plan that was made before its turn, and how many writes the store has when it is still true. */
export interface MadeAhead<P> {
  readonly planned: P;
  readonly asOf: number;
}

/**
 * The same for a part of long work, which may find nothing to change: its entry is null then. `ahead` is the plan where one was made while the part
 * before was written. `begun` is told what is written as soon as that is sure, while it is written.
 */
export async function tryPlan<P extends Planned>(
  store: Store,
  person: number,
  plan: (store: Store) => Promise<P>,
  ahead: MadeAhead<P> | null = null,
  begun?: (planned: P) => void,
): Promise<Told<P> & { readonly entry: number | null }> {
  const now = store.writes();
  const first = ahead?.asOf === now ? ahead : { asOf: now, planned: await plan(store) };
  return store.write(async (tx) => {
    const inside = store.within(tx);
    const planned = store.writes() === first.asOf ? first.planned : await plan(inside).catch(asChangedSince);
    begun?.(planned);
    const entry = await commitWithin(inside, { ...planned, person }, tx);
    const { did, changes: _c, entry: _e, undoes: _u, also: _s, mayBeNothing: _m, ...told } = planned;
    return { ...told, sentence: actSentence(did), entry };
  });
}

/** What is refused inside the transaction was allowed just before. */
function asChangedSince(error: unknown): never {
  throw new ChangedSince(error);
}

/** Commits as part of a transaction that is already open; `store` is the one inside it. Null when nothing would change. */
export async function commitWithin(store: Store, act: DoneBy, tx: Transaction): Promise<number | null> {
  const changes = act.changes.filter((c) => !sameValue(c.before, c.after));
  if (changes.length === 0) return nothing(act, tx);
  const byKind = changesByKind(changes);
  await checkVersions(store, byKind);
  const checker = await store.checkerNow();
  try {
    for (const kind of byKind.kinds) await removeRows(store, kind, byKind.of(kind), tx);
    for (const kind of byKind.kinds) await writeRows(store, kind, byKind.of(kind), checker, tx);
    for (const kind of byKind.kinds) await passOn(store, kind, byKind.of(kind), tx);
  } catch (error) {
    if (!isCollision(error)) throw error;
    const found = await collisions(store, byKind);
    throw found.length ? new ConflictError(found) : error;
  }
  await applyProjections(store, byKind, tx);
  await refuseHangingOnNothing(store, byKind);
  const entry = await writeEntry(store, act, changes, tx);
  await act.also?.(tx, entry);
  tx.whenStored(() => store.feed.tell(changedBy(entry, byKind)));
  return entry;
}

async function nothing(act: DoneBy, tx: Transaction): Promise<number | null> {
  if (act.mayBeNothing !== true) return null;
  await act.also?.(tx, act.entry ?? null);
  return act.entry ?? null;
}

async function checkVersions(store: Store, byKind: ChangesByKind): Promise<void> {
  const found: Stale[] = [];
  for (const kind of byKind.kinds) found.push(...(await staleOf(store, kind, byKind.of(kind))));
  if (found.length) throw new ConflictError(found);
}

/** The objects of a kind that are no longer as a change set took them for; the first twenty, as they stand. */
async function staleOf<K extends Kind>(
  store: Store,
  kind: K,
  changes: readonly Change<K>[],
): Promise<Stale[]> {
  const { name, present } = tableOf(kind);
  const rows = await store.rows<{ id: number; version: number }>(
    `SELECT id, version FROM ${name} WHERE ${present} AND id IN (SELECT value FROM json_each(:ids))`,
    { ids: JSON.stringify(changes.map((c) => c.id)) },
  );
  const versions = new Map(rows.map((r) => [r.id, r.version]));
  const stale = changes.filter((c) => (c.before === null ? undefined : c.version) !== versions.get(c.id));
  const now = await store.readMany(
    kind,
    stale.slice(0, 20).map((c) => c.id),
  );
  return stale.map(({ id, before }) => ({
    kind,
    id,
    label: before,
    current: now.find((n) => n.id === id) ?? null,
  }));
}
