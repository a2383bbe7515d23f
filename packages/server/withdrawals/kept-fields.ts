import type { Store } from '../store/store';

/** The first field of each of some records whose tag is one of those that mark a record as one to keep (`.` stands for any digit). */
export async function keptByField(
  store: Store,
  records: readonly number[],
  patterns: readonly string[],
): Promise<ReadonlyMap<number, string>> {
  if (patterns.length === 0) return new Map();
  const isKept = new RegExp(`^(?:${patterns.map((p) => p.replace(/[^0-9.]/g, '')).join('|')})$`);
  const found = new Map<number, string>();
  for (const { id, value } of await store.readMany('record', records)) {
    const tag = value.fields.find((f) => isKept.test(f.tag))?.tag;
    if (tag !== undefined) found.set(id, tag);
  }
  return found;
}
