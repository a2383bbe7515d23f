import type { Description, MatchRule } from '@osier/core/matching';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import type { Key } from './keys';
import { descriptionsIn, recordsSharing, type WrittenSince } from './queries';

/** A record that shares a key. */
export interface HeldCandidate {
  readonly record: number;
  readonly description: Description;
}

/**
 * A description that more records share than this says nothing, and is passed over; of a number that so many share, these
 * are enough to see that it says nothing.
 */
const TOO_COMMON = 60;

/** The kinds of key that a match rule asks for. */
export const keyKinds = (rule: MatchRule): ReadonlySet<string> =>
  new Set(rule.points.map((p) => (p.by === 'likeness' ? 'alike' : p.by)));

/** Held records by the keys of incoming ones: `kind key` to the records that share it. */
export async function candidatesFor(
  store: Store,
  keys: readonly Key[],
  since?: WrittenSince,
): Promise<Map<string, HeldCandidate[]>> {
  const sharing = new Map<string, number[]>();
  for (const kind of new Set(keys.map(([k]) => k))) {
    const wanted = [...new Set(keys.filter(([k]) => k === kind).map(([, key]) => key))];
    const found = await recordsSharing(store, kind, wanted, TOO_COMMON + 1, since);
    for (const { key, records } of found) {
      const ids = keptJson<number[]>(records);
      if (ids.length > 0 && (ids.length <= TOO_COMMON || kind !== 'alike'))
        sharing.set(`${kind} ${key}`, ids);
    }
  }
  const known = await descriptionsOf(store, [...new Set([...sharing.values()].flat())]);
  return new Map([...sharing].map(([key, ids]) => [key, ids.flatMap((id) => known.get(id) ?? [])]));
}

async function descriptionsOf(store: Store, records: readonly number[]): Promise<Map<number, HeldCandidate>> {
  if (records.length === 0) return new Map();
  const rows = await descriptionsIn(store, records);
  return new Map(rows.map((r) => [r.id, { record: r.id, description: keptJson<Description>(r.matching) }]));
}
