import type { RollRow } from '@osier/contract';
import { isRollFor, rollMeantFor } from '@osier/core/barcodes';
import { NO_LISTS, type CodeLists } from '@osier/core/holdings';
import { partWords as wording } from './words';

/** The label rolls that have numbers to give, for a choice, behind taking none: those first that are meant for the copy in hand. */
export const rollOptions = (
  rolls: readonly RollRow[],
  none: string,
  named: (name: string, left: number) => string,
  {
    copy = { branch: '', type: '' },
    lists = NO_LISTS,
  }: { readonly copy?: { readonly branch: string; readonly type: string }; readonly lists?: CodeLists } = {},
): { readonly value: number | null; readonly label: string }[] => [
  { value: null, label: none },
  ...rolls
    .filter((r) => r.next !== null)
    .toSorted((a, b) => Number(isRollFor(b.roll, copy)) - Number(isRollFor(a.roll, copy)))
    .map((r) => {
      const meant = rollMeantFor(r.roll, lists);
      const label = named(r.roll.name, r.counts.left);
      return { value: r.id, label: meant ? `${label} · ${wording.meantFor(meant)}` : label };
    }),
];
