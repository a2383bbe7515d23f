import type { Change, Kind } from '@osier/core/kinds';
import { digestOf } from './digest';
import { entryParts, joined, keyOf, partsAtHand, type PartOf } from './entry-parts';
import type { Store } from './store';

/** One object of an act: where its change begins and ends, and digests of what it was and what the act left. */
export interface Indexed<A = unknown> {
  readonly kind: Kind;
  readonly id: number;
  readonly first: number;
  readonly last: number;
  readonly before: string;
  readonly after: string;
  /** Somebody else changed it between two parts of the act. */
  readonly gap: boolean;
  /** It is worth telling a person. */
  readonly told: boolean;
  readonly about: A;
}

/** An act of one or more entries without its content: that stays in the parts of the entries until it is wanted. */
export interface EntryIndex<A = unknown> {
  /** In the order in which they are taken back. */
  readonly objects: readonly Indexed<A>[];
  /** The inverse changes of some objects, with the versions of the act. */
  inverse(of: readonly Indexed[]): Promise<Change[]>;
}

/** What is to be kept of each object. */
export interface IndexOptions<A> {
  readonly isTold?: (change: Change) => boolean;
  readonly about?: (change: Change) => A;
}

/**
 * Reads entries part by part, in their order. What the whole of them leaves as it was is no object of the act; what was
 * brought back on the way begins anew.
 */
export async function entryIndex<A = undefined>(
  store: Store,
  entries: readonly number[],
  { isTold = () => true, about }: IndexOptions<A> = {},
): Promise<EntryIndex<A | undefined>> {
  const parts: PartOf[] = [];
  const objects = new Map<string, Indexed<A | undefined>>();
  for (const entry of entries)
    for await (const { part, changes } of entryParts(store, entry)) {
      const at = parts.push({ entry, part }) - 1;
      for (const [key, change] of joined(changes)) {
        const before = digestOf(change.before);
        const known = objects.get(key);
        const earlier = known && known.before !== known.after ? known : undefined;
        // What changes again counts as changed last.
        objects.delete(key);
        objects.set(key, {
          kind: change.kind,
          id: change.id,
          first: earlier?.first ?? at,
          last: at,
          before: earlier?.before ?? before,
          after: digestOf(change.after),
          gap: earlier !== undefined && (earlier.gap || earlier.after !== before),
          told: (earlier?.told ?? false) || isTold(change),
          about: about?.(change),
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
