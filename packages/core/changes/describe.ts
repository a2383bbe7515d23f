import type { AnyChange } from './change-set';

/** By kind: how many are made, changed and removed. */
export interface ChangeCounts {
  readonly [kind: string]: { made: number; changed: number; removed: number };
}

/** How many objects of each kind a change set makes, changes and removes. */
export function countChanges(changes: readonly AnyChange[]): ChangeCounts {
  const counts: Record<string, { made: number; changed: number; removed: number }> = {};
  for (const change of changes) {
    const row = (counts[change.kind] ??= { made: 0, changed: 0, removed: 0 });
    if (change.before === null) row.made++;
    else if (change.after === null) row.removed++;
    else row.changed++;
  }
  return counts;
}

/** "1 record", "12 records": a count with its noun. */
export function counted(n: number, noun: string, plural = `${noun}s`): string {
  return `${n.toLocaleString('en-GB')} ${n === 1 ? noun : plural}`;
}
