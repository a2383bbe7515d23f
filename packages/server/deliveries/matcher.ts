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
import { inSlices } from '../store/in-slices';
import type { Store } from '../store/store';
import { checkedCopies } from './copies';
import { candidatesFor, keyKinds, type HeldCandidate } from './find-candidates';
import type { Key } from './keys';
import { keptJson } from '../store/kept-json';
import type { CopyWork } from './settings';

/** An incoming record as it is matched. */
export interface ToMatch {
  readonly seq: number;
  readonly description: Description;
  readonly keys: readonly Key[];
  readonly copies: readonly ProposedCopy[];
}
/** What matching gives for one record. */
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
export function matcherFor(settings: DeliverySettings, work: CopyWork) {
  const kinds = keyKinds(settings.rule);
  const before = new RecordsBefore();
  const barcodes = new Map<string, number>();
  return async (rows: readonly ToMatch[], store: Store): Promise<Matched[]> => {
    const wanted = rows.map((r) => r.keys.filter(([kind]) => kinds.has(kind)));
    const held = await candidatesFor(store, wanted.flat());
    const copies = await checkedCopies(store, work, rows, barcodes);
    return inSlices(rows.entries(), ([i, row]) => {
      const keys = wanted[i]!.map(([kind, key]) => `${kind} ${key}`);
      const among = keys.flatMap((k) => held.get(k) ?? []);
      const matches = findMatches(row.description, among, settings.rule);
      const earlier = findMatches(row.description, before.sharing(keys, row.seq), settings.rule).find(
        (m) => m.strength >= SURE,
      );
      before.add(row.seq, row.description, keys);
      const repeats = earlier?.record ?? null;
      return { matches, repeats, copies: copies[i]!, ...proposedOutcome(matches, repeats, settings.actions) };
    });
  };
}

/** The records of a file that came before, by their keys. Kept small: a file may have some hundred thousand. */
class RecordsBefore {
  private readonly descriptions = new Map<number, string>();
  /** Numbers of records by a key's number; one alone without a list. */
  private readonly byKey = new Map<number, number | number[]>();

  /** Those before `seq` that share a key; also none that a batch matched once more has added itself. */
  sharing(keys: readonly string[], seq: number): HeldCandidate[] {
    const found = new Set<number>();
    for (const key of keys) {
      const there = this.byKey.get(numberOf(key)) ?? [];
      for (const other of typeof there === 'number' ? [there] : there) if (other < seq) found.add(other);
    }
    return [...found].map((record) => ({
      record,
      description: keptJson<Description>(this.descriptions.get(record)!),
    }));
  }

  add(seq: number, description: Description, keys: readonly string[]): void {
    this.descriptions.set(seq, JSON.stringify(description));
    for (const key of keys) {
      const number = numberOf(key);
      const there = this.byKey.get(number);
      if (there === undefined) this.byKey.set(number, seq);
      else if (typeof there === 'number') this.byKey.set(number, [there, seq]);
      else if (there.length < FEW) there.push(seq);
    }
  }
}

/** A key as a number of 52 bits (FNV-1a, twice); two keys of one number would only be compared in vain. */
function numberOf(key: string): number {
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (let i = 0; i < key.length; i++) {
    const c = key.charCodeAt(i);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ c, 0x85ebca6b);
  }
  return (a >>> 0) * 0x100000 + ((b >>> 0) & 0xfffff);
}
/** So many of one key are enough to find a record again in its own file. */
const FEW = 8;
