import type { Conflict } from '@osier/core/changes';
import type { Kind } from '@osier/core/kinds';
import { digestOf, NOTHING } from './digest';
import type { EntryIndex, Indexed } from './entry-index';
import { keyOf } from './entry-parts';
import { childrenIn, fieldOf } from './hanging';
import { headingsInUse } from './in-use';
import type { Store } from './store';

/** What of an act is taken back together, and which part of it is looked at. */
export interface Taking {
  /** All that goes back with it: nothing of this stands in the way of the rest. The whole act when it is not given. */
  readonly together?: readonly Indexed[];
  /** What is looked at now; all that goes back when it is not given. */
  readonly among?: readonly Indexed[];
  /** Records that keep no heading in use beside those that go back. */
  readonly alsoTouched?: Iterable<number>;
  /** A part was taken back before, so that what is not there any more is done. */
  readonly begun?: boolean;
}

/** What of an act can be taken back now, and what stands in the way. */
export interface Takeable {
  readonly objects: readonly Indexed[];
  readonly conflicts: readonly Conflict[];
}

const PIECE = 400;

/**
 * Looks at objects of an act, piece by piece. One that is no longer what the act left, or that somebody changed in its midst, is
 * a conflict; one that is back already is passed over; a new heading that other records have by now stays; what would lose
 * what it hangs on is a conflict of the thing it hangs on.
 */
export async function takeable(store: Store, index: EntryIndex, taking: Taking = {}): Promise<Takeable> {
  const { together = index.objects, among = together, begun = false } = taking;
  const known = new Map(together.map((o) => [keyOf(o), o]));
  const touched = new Set(taking.alsoTouched);
  for (const o of together) if (o.kind === 'record') touched.add(o.id);
  const conflicts: Conflict[] = [];
  const objects: Indexed[] = [];
  for (let at = 0; at < among.length; at += PIECE) {
    const piece = among.slice(at, at + PIECE);
    const now = await standingNow(store, piece);
    const staying = await headingsThatStay(store, index, piece, touched);
    const undone = await undoneAlready(store, index, piece, now);
    for (const o of piece) {
      const found = now.get(keyOf(o)) ?? null;
      const digest = digestOf(found);
      if (staying.has(o) || (digest === o.before && (o.before !== NOTHING || begun || undone.has(o))))
        continue;
      if (digest === o.after && !o.gap) objects.push(o);
      else conflicts.push({ kind: o.kind, id: o.id, expected: null, found });
    }
    const going = piece.filter((o) => !staying.has(o));
    conflicts.push(...(await hangingOn(store, index, going, known)));
  }
  return { objects, conflicts };
}

/** Rows of the register that were undone by themselves: they are gone, and the copy stands again. One that went once more is not among them. */
async function undoneAlready(
  store: Store,
  index: EntryIndex,
  piece: readonly Indexed[],
  now: ReadonlyMap<string, unknown>,
): Promise<ReadonlySet<Indexed>> {
  const gone = piece.filter((o) => o.kind === 'withdrawn' && o.before === NOTHING && !now.has(keyOf(o)));
  if (gone.length === 0) return new Set();
  const copies = (await index.inverse(gone)).map((c) =>
    c.kind === 'withdrawn' ? (c.before?.copyId ?? 0) : 0,
  );
  const standing = new Set((await store.readMany('copy', copies)).map((c) => c.id));
  return new Set(gone.filter((_, at) => standing.has(copies[at] ?? 0)));
}

async function standingNow(store: Store, piece: readonly Indexed[]): Promise<Map<string, unknown>> {
  const ids = new Map<Kind, number[]>();
  for (const o of piece) ids.set(o.kind, [...(ids.get(o.kind) ?? []), o.id]);
  const now = new Map<string, unknown>();
  for (const [kind, of] of ids)
    for (const { id, value } of await store.readMany(kind, of)) now.set(keyOf({ kind, id }), value);
  return now;
}

/** New headings that records carry which do not go back. */
async function headingsThatStay(
  store: Store,
  index: EntryIndex,
  piece: readonly Indexed[],
  touched: Iterable<number>,
): Promise<Set<Indexed>> {
  const made = piece.filter((o) => o.kind === 'heading' && o.before === NOTHING);
  if (made.length === 0) return new Set();
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
