import { joinChanges } from '@osier/core/changes';
import type { Change } from '@osier/core/kinds';
import { readChanges } from './read-changes';
import type { Store } from './store';

/** A part of a daybook entry: what one transaction of it changed. */
export interface PartOf {
  readonly entry: number;
  readonly part: number;
}

/** Reads one part of an entry. */
async function partChanges(store: Store, { entry, part }: PartOf): Promise<Change[]> {
  const row = await store.row<{ changes: string }>(
    'SELECT changes FROM daybook_parts WHERE entry = :entry AND part = :part',
    { entry, part },
  );
  return row ? readChanges(row.changes) : [];
}

/** Parts that are kept at hand: those of neighbouring objects are asked for again. */
const AT_HAND = 8;

/** Gives parts by their place in a list, one change an object, the last few without reading them again. */
export function partsAtHand(
  store: Store,
  parts: readonly PartOf[],
): (at: number) => Promise<Map<string, Change>> {
  const atHand = new Map<number, Map<string, Change>>();
  return async (at) => {
    const known = atHand.get(at) ?? joined(await partChanges(store, parts[at]!));
    atHand.delete(at);
    atHand.set(at, known);
    if (atHand.size > AT_HAND) atHand.delete(atHand.keys().next().value!);
    return known;
  };
}

/** The parts of an entry one after another, so that a large entry is never in memory as a whole. */
export async function* entryParts(
  store: Store,
  entry: number,
): AsyncGenerator<PartOf & { readonly changes: Change[] }> {
  const parts = await store.rows<{ part: number }>(
    'SELECT part FROM daybook_parts WHERE entry = :entry ORDER BY part',
    { entry },
  );
  for (const { part } of parts) yield { entry, part, changes: await partChanges(store, { entry, part }) };
}

/** The kind and number of an object as a key. */
export const keyOf = ({ kind, id }: { readonly kind: string; readonly id: number }): string =>
  `${kind} ${id}`;

/** One change an object within a part, successive ones joined. */
export function joined<C extends Change>(changes: readonly C[]): Map<string, C> {
  const found = new Map<string, C>();
  for (const change of changes) {
    const first = found.get(keyOf(change));
    found.set(keyOf(change), first ? joinChanges(first, change) : change);
  }
  return found;
}
