import { matchKeys, type Description, type MatchRule } from '@osier/core/matching';
import type { Store } from '../store/store';

/** A record that shares a key. */
export interface Candidate {
  readonly record: number;
  readonly description: Description;
}
export type Key = readonly [kind: string, key: string];

/** Every key under which a record is looked for. */
export const keysOf = (d: Description): Key[] => matchKeys(d).map((k) => [k.kind, k.key]);

/** A key that more records share than this says nothing. */
const TOO_COMMON = 60;

/** The kinds of key that a match rule asks for. */
export const keyKinds = (rule: MatchRule): ReadonlySet<string> =>
  new Set(rule.points.map((p) => (p.by === 'likeness' ? 'alike' : p.by)));

/** Only records that were written by this entry of the daybook or a later one, and did not come with this delivery. */
export interface WrittenSince {
  readonly entry: number;
  readonly delivery: number;
}
const SINCE = `AND EXISTS (SELECT 1 FROM daybook_objects d WHERE d.kind = 'record' AND d.object = k.record AND d.entry >= :entry)
  AND NOT EXISTS (SELECT 1 FROM incoming i WHERE i.record = k.record AND i.delivery = :delivery)`;

/** Held records by the keys of incoming ones: `kind key` to the records that share it. */
export async function candidatesFor(
  store: Store,
  keys: readonly Key[],
  since?: WrittenSince,
): Promise<Map<string, Candidate[]>> {
  const found = new Map<string, Candidate[]>();
  const known = new Map<number, Description>();
  for (const kind of new Set(keys.map(([k]) => k))) {
    const wanted = [...new Set(keys.filter(([k]) => k === kind).map(([, key]) => key))];
    // CROSS JOIN keeps the order: each wanted key is looked up, rather than every key of the kind compared.
    const shared = await store.rows<{ key: string; record: number }>(
      `SELECT k.key, k.record FROM json_each(:wanted) w CROSS JOIN record_keys k ON k.kind = :kind AND k.key = w.value ${since ? SINCE : ''}`,
      { kind, wanted: JSON.stringify(wanted), ...since },
    );
    const missing = [...new Set(shared.map((s) => s.record))].filter((r) => !known.has(r));
    const rows = missing.length
      ? await store.rows<{ id: number; matching: string }>(
          'SELECT id, matching FROM records WHERE id IN (SELECT value FROM json_each(:missing))',
          { missing: JSON.stringify(missing) },
        )
      : [];
    for (const { id, matching } of rows) known.set(id, JSON.parse(matching) as Description);
    for (const { key, record } of shared) {
      const description = known.get(record);
      if (!description) continue;
      const list = found.get(`${kind} ${key}`);
      if (!list) found.set(`${kind} ${key}`, [{ record, description }]);
      else if (list.length < TOO_COMMON) list.push({ record, description });
    }
  }
  return found;
}
