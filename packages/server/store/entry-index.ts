import type { Conflict } from '@osier/core/changes';
import type { Change, ChangeSet } from '@osier/core/kinds';
import { contentNumber, entryParts, joined, keyOf, partsAtHand, type PartOf } from './entry-parts';
import { headingsInUse } from './in-use';
import type { Kind } from '@osier/core/kinds';
import { childrenIn, fieldOf } from './hanging';
import type { Store } from './store';

/** One object of an entry: where its change begins and ends, and numbers of what it was and what the entry left. */
export interface Indexed {
  readonly kind: Kind;
  readonly id: number;
  readonly first: number;
  readonly last: number;
  readonly before: number;
  readonly after: number;
  /** It is worth telling a person. */
  readonly told: boolean;
}

/** A large entry without its content: that stays in its parts until it is wanted. */
export interface EntryIndex {
  /** In the order in which they are taken back. */
  readonly objects: readonly Indexed[];
  /** The inverse changes of some objects, with the versions of the entry. */
  inverse(of: readonly Indexed[]): Promise<Change[]>;
}

const NOTHING = contentNumber(null);
const PIECE = 400;

/** Reads an entry part by part. What the whole of it leaves as it was is no object of it. */
export async function entryIndex(
  store: Store,
  entry: number,
  isTold: (change: Change) => boolean = () => true,
): Promise<EntryIndex> {
  const parts: PartOf[] = [];
  const objects = new Map<string, Indexed>();
  for await (const { part, changes } of entryParts(store, entry)) {
    const at = parts.push({ entry, part }) - 1;
    for (const [key, change] of joined(changes)) {
      const earlier = objects.get(key);
      // What changes again counts as changed last.
      objects.delete(key);
      objects.set(key, {
        kind: change.kind,
        id: change.id,
        first: earlier?.first ?? at,
        last: at,
        before: earlier?.before ?? contentNumber(change.before),
        after: contentNumber(change.after),
        told: (earlier?.told ?? false) || isTold(change),
      });
    }
  }
  return {
    objects: [...objects.values()].filter((o) => o.before !== o.after).reverse(),
    inverse: inverseFrom(store, parts),
  };
}

function inverseFrom(store: Store, parts: readonly PartOf[]): EntryIndex['inverse'] {
  const partAt = partsAtHand(store, parts);
  return async (of) => {
    const changes: Change[] = [];
    for (const o of of) {
      const [begins, ends] = [await partAt(o.first), await partAt(o.last)];
      changes.push(backwards(begins.get(keyOf(o))!, ends.get(keyOf(o))!));
    }
    return changes;
  };
}

/** The change that leads from where the last one ended to where the first began. */
const backwards = <C extends Change>(first: C, last: C): C => ({
  ...first,
  version: first.version + 1,
  before: last.after,
  after: first.before,
});

/** What of an entry can be taken back now, and what stands in the way. */
export interface Takeable {
  readonly objects: readonly Indexed[];
  readonly conflicts: readonly Conflict[];
}

/**
 * Looks at every object of an entry, piece by piece: one that is no longer what the entry left is a conflict, one that is back
 * already is passed over, a new heading that other records have by now stays. `begun` says that a part of the entry was
 * taken back before, so that what is not there any more is done; `among` are the objects
 * that are looked at, all when it is not given.
 */
export async function takeable(
  store: Store,
  index: EntryIndex,
  begun = false,
  among: readonly Indexed[] = index.objects,
): Promise<Takeable> {
  const known = new Map(index.objects.map((o) => [keyOf(o), o]));
  const records = index.objects.filter((o) => o.kind === 'record').map((o) => o.id);
  const conflicts: Conflict[] = [];
  const objects: Indexed[] = [];
  for (let at = 0; at < among.length; at += PIECE) {
    const piece = among.slice(at, at + PIECE);
    const now = await standingNow(store, piece);
    const staying = await headingsThatStay(store, index, piece, records);
    for (const o of piece) {
      const found = now.get(keyOf(o)) ?? null;
      const number = contentNumber(found);
      if (staying.has(o) || (number === o.before && (o.before !== NOTHING || begun))) continue;
      if (number === o.after) objects.push(o);
      else conflicts.push({ kind: o.kind, id: o.id, expected: null, found });
    }
    conflicts.push(...(await hangingOn(store, index, piece, known)));
  }
  return { objects, conflicts };
}

async function standingNow(store: Store, piece: readonly Indexed[]): Promise<Map<string, unknown>> {
  const ids = new Map<Kind, number[]>();
  for (const o of piece) ids.set(o.kind, [...(ids.get(o.kind) ?? []), o.id]);
  const now = new Map<string, unknown>();
  for (const [kind, of] of ids)
    for (const { id, value } of await store.readMany(kind, of)) now.set(keyOf({ kind, id }), value);
  return now;
}

/** New headings that records carry which the entry did not touch. */
async function headingsThatStay(
  store: Store,
  index: EntryIndex,
  piece: readonly Indexed[],
  touched: readonly number[],
): Promise<Set<Indexed>> {
  const made = piece.filter((o) => o.kind === 'heading' && o.before === NOTHING);
  const changes = (await index.inverse(made)).filter((c) => c.kind === 'heading');
  const inUse = await headingsInUse(
    store,
    changes.flatMap((c) => c.before ?? []),
    touched,
  );
  return new Set(made.filter((_, i) => inUse.has(i)));
}

/** Things that hang on what would go, and do not go with it. */
async function hangingOn(
  store: Store,
  index: EntryIndex,
  piece: readonly Indexed[],
  known: ReadonlyMap<string, Indexed>,
): Promise<Conflict[]> {
  const found: Conflict[] = [];
  const made = piece.filter((o) => o.before === NOTHING);
  for (const kind of new Set(made.map((o) => o.kind))) {
    const ids = made.filter((o) => o.kind === kind).map((o) => o.id);
    for (const { id, child, childId, field } of await childrenIn(store, kind, ids)) {
      const own = known.get(keyOf({ kind: child, id: childId }));
      const [goes] = own ? await index.inverse([own]) : [];
      if (!goes || fieldOf(goes.after, field) === id)
        found.push({ kind, id, expected: null, found: null, dependsOn: child });
    }
  }
  return found;
}

/** Inverse changes fitted to the versions that stand in the store now. */
export async function fitted(store: Store, changes: readonly Change[]): Promise<ChangeSet> {
  const ids = new Map<Kind, number[]>();
  for (const c of changes) ids.set(c.kind, [...(ids.get(c.kind) ?? []), c.id]);
  const versions = new Map<string, number>();
  for (const [kind, of] of ids)
    for (const { id, version } of await store.readMany(kind, of)) versions.set(keyOf({ kind, id }), version);
  return changes.map((c) => ({ ...c, version: versions.get(keyOf(c)) ?? c.version }));
}
