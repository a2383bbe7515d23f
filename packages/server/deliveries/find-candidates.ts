import type { Candidate } from '@osier/core/matching';
import type { Store } from '../store/store';

/** Held records by the keys of incoming ones: `kind key` to the records that share it. */
export async function candidatesFor(
  store: Store,
  keys: readonly (readonly [string, string])[],
): Promise<Map<string, Candidate[]>> {
  const found = new Map<string, Candidate[]>();
  for (const kind of ['isbn', 'control'] as const) {
    const wanted = [...new Set(keys.filter(([k]) => k === kind).map(([, key]) => key))];
    if (wanted.length === 0) continue;
    const rows = await store.rows<{ key: string; record: number; title: string }>(
      'SELECT k.key, k.record, r.title FROM record_keys k JOIN records r ON r.id = k.record WHERE k.kind = :kind AND k.key IN (:wanted)',
      { kind, wanted },
    );
    for (const row of rows)
      found.set(`${kind} ${row.key}`, [...(found.get(`${kind} ${row.key}`) ?? []), { ...row, kind }]);
  }
  return found;
}
