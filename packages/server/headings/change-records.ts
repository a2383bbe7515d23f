import { update } from '@osier/core/changes';
import { headingIdentity, identityOf, mergedRecords, type MergeForms } from '@osier/core/headings';
import type { Change, StoredObject } from '@osier/core/kinds';
import { newHeadings } from '../catalogue/records';
import { CHUNK } from '../jobs/in-chunks';
import type { Store } from '../store/store';
import { recordsCarrying } from './queries';

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

/**
 * Headings that are made for records which have changed: for a subject that carries its subdivisions along to the kept form, say. Those
 * that `headings` have already, before or after, are none.
 */
export async function headingsMadeBy(
  store: Store,
  headings: readonly Change<'heading'>[],
  records: readonly Change<'record'>[],
): Promise<Change<'heading'>[]> {
  const known = new Set(
    headings.flatMap((c) => [c.before, c.after].flatMap((h) => (h ? headingIdentity(identityOf(h)) : []))),
  );
  const made = await newHeadings(
    store,
    records.flatMap((c) => c.after ?? []),
  );
  return made.filter((c) => c.after !== null && !known.has(headingIdentity(identityOf(c.after))));
}
