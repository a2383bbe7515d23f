import { update } from '@osier/core/changes';
import {
  carriedAlong,
  changesAlong,
  headingGroup,
  headingIdentity,
  identityOf,
  mergedRecords,
  type CarriedAlong,
  type Heading,
  type MergeForms,
} from '@osier/core/headings';
import type { Change, StoredObject } from '@osier/core/kinds';
import { newHeadings } from '../catalogue/records';
import { CHUNK } from '../jobs/in-chunks';
import type { Store } from '../store/store';
import { headingsBehindForms, headingsWithKeys, recordsCarrying } from './queries';

/** Records that carry headings, in pieces. */
export async function* carryingPieces(
  store: Store,
  headings: readonly number[],
): AsyncGenerator<StoredObject<'record'>[]> {
  for (let after = 0; ;) {
    const ids = await recordsCarrying(store, headings, after, CHUNK);
    if (ids.length === 0) return;
    after = ids.at(-1)!;
    yield await store.readMany('record', ids);
  }
}

/** What records become when headings get other forms, one after the other; a record that carries several of them is changed once. */
export async function changedTogether(
  store: Store,
  merges: readonly { readonly forms: MergeForms; readonly changing: readonly number[] }[],
): Promise<Change<'record'>[]> {
  const first = new Map<number, StoredObject<'record'>>();
  const now = new Map<number, StoredObject<'record'>>();
  for (const { forms, changing } of merges)
    for await (const piece of carryingPieces(store, changing)) {
      const standing = new Map(piece.map((r) => [r.id, now.get(r.id) ?? r]));
      for (const { id, after } of mergedRecords(forms, [...standing.values()]).records) {
        const held = standing.get(id)!;
        if (!first.has(id)) first.set(id, held);
        now.set(id, { ...held, value: after! });
      }
    }
  return [...first].map(([id, held]) => update('record', held, now.get(id)!.value));
}

/** Changes of headings that go with a merge or a new form, and headings that are made for the records which have changed. */
export interface FollowingHeadings {
  /** Those that have a lost form at their beginning: a name before a title, a subject before its subdivisions. */
  readonly along: readonly Change<'heading'>[];
  readonly made: readonly Change<'heading'>[];
}

/**
 * The headings that follow when some are changed: those that carry the lost forms along, and those that records have come to carry and no heading
 * knows. What `headings` changes or makes already is left as it is there.
 */
export async function headingsFollowing(
  store: Store,
  forms: readonly MergeForms[],
  headings: readonly Change<'heading'>[],
  records: readonly Change<'record'>[],
): Promise<FollowingHeadings> {
  const along = await headingsAlong(store, forms, headings);
  const known = new Set(
    [...headings, ...along].flatMap((c) => [c.before, c.after].flatMap((h) => (h ? identityText(h) : []))),
  );
  const made = await newHeadings(
    store,
    records.flatMap((c) => c.after ?? []),
  );
  return { along, made: made.filter((c) => c.after !== null && !known.has(identityText(c.after))) };
}

const identityText = (heading: Heading): string => headingIdentity(identityOf(heading));

/** What becomes of the headings that have a lost form at their beginning; those of `headings`, and what would come to be one of them, stay. */
export async function headingsAlong(
  store: Store,
  forms: readonly MergeForms[],
  headings: readonly Change<'heading'>[],
): Promise<Change<'heading'>[]> {
  const changing = new Set(headings.map((c) => c.id));
  const taken = new Set(headings.flatMap((c) => (c.after ? identityText(c.after) : [])));
  const ids = (
    await headingsBehindForms(
      store,
      forms.flatMap((f) => f.lost),
    )
  ).filter((id) => !changing.has(id));
  // One that begins with two lost forms goes with the first, as its records do.
  const by = new Map<number, CarriedAlong>();
  // A place may have thousands of subdivisions.
  for (let at = 0; at < ids.length; at += CHUNK) {
    const held = await store.readMany('heading', ids.slice(at, at + CHUNK));
    for (const a of forms.flatMap((f) => carriedAlong(f, held))) by.set(a.held.id, by.get(a.held.id) ?? a);
  }
  const along = [...by.values()].filter(({ then }) => !taken.has(headingIdentity(then)));
  const going = new Set([...changing, ...by.keys()]);
  const found = await headingsWithKeys(
    store,
    along.map(({ then }) => ({ group: headingGroup(then), key: then.key })),
  );
  const there = await store.readMany(
    'heading',
    found.flatMap((f) => (f.isOwn && !going.has(f.heading) ? [f.heading] : [])),
  );
  return changesAlong(along, new Map(there.map((h) => [identityText(h.value), h])));
}
