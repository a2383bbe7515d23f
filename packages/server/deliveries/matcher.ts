import type { DeliverySettings } from '@osier/core/deliveries';
import type { ProposedCopy } from '@osier/core/holdings';
import {
  findMatches,
  proposedOutcome,
  SURE,
  type Description,
  type Match,
  type Outcome,
} from '@osier/core/matching';
import type { Store } from '../store/store';
import { checkedCopies } from './copies';
import { candidatesFor, keyKinds, type Candidate, type Key } from './find-candidates';
import type { CopyWork } from './settings';

export interface ToMatch {
  readonly seq: number;
  readonly description: Description;
  readonly keys: readonly Key[];
  readonly copies: readonly ProposedCopy[];
}
export interface Matched {
  readonly matches: readonly Match[];
  /** The record of this file that is the same. */
  readonly repeats: number | null;
  readonly outcome: Outcome;
  readonly target: number | null;
  readonly copies: readonly ProposedCopy[];
}

/**
 * Matches the records of one delivery, batch by batch in the order of the file, with the catalogue and with those before
 * them. Each record meets only those that share a key with it.
 */
export function matcherFor(store: Store, settings: DeliverySettings, work: CopyWork) {
  const kinds = keyKinds(settings.rule);
  const before = new Map<string, Candidate[]>();
  const barcodes = new Map<string, number>();
  return async (rows: readonly ToMatch[]): Promise<Matched[]> => {
    const wanted = rows.map((r) => r.keys.filter(([kind]) => kinds.has(kind)));
    const held = await candidatesFor(store, wanted.flat());
    const copies = await checkedCopies(store, work, rows, barcodes);
    return rows.map((row, i) => {
      const keys = wanted[i]!.map(([kind, key]) => `${kind} ${key}`);
      const among = (map: ReadonlyMap<string, Candidate[]>) => keys.flatMap((k) => map.get(k) ?? []);
      const matches = findMatches(row.description, among(held), settings.rule);
      // A batch that is matched once more, because its commit met a conflict, meets only those before.
      const earlier = findMatches(
        row.description,
        among(before).filter((c) => c.record < row.seq),
        settings.rule,
      ).find((m) => m.strength >= SURE);
      for (const key of keys) {
        const list = before.get(key);
        const me = { record: row.seq, description: row.description };
        if (!list) before.set(key, [me]);
        else if (list.length < FEW) list.push(me);
      }
      const repeats = earlier?.record ?? null;
      return { matches, repeats, copies: copies[i]!, ...proposedOutcome(matches, repeats, settings.actions) };
    });
  };
}
/** So many of one key are enough to find a record again in its own file. */
const FEW = 8;
