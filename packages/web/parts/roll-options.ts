import type { RollRow } from '@osier/contract';

/** The label rolls that have numbers to give, for a choice, behind taking none. */
export const rollOptions = (
  rolls: readonly RollRow[],
  none: string,
  named: (name: string, left: number) => string,
): { readonly value: number | null; readonly label: string }[] => [
  { value: null, label: none },
  ...rolls
    .filter((r) => r.next !== null)
    .map((r) => ({ value: r.id, label: named(r.roll.name, r.counts.left) })),
];
