import type { LabelRoll } from './roll';

/** Whether a roll of the library's own is meant for copies at a branch and of a type; one that names none is for any. */
export const isRollFor = (
  { branches = [], types = [] }: Pick<LabelRoll, 'branches' | 'types'>,
  copy: { readonly branch: string; readonly type: string },
): boolean =>
  (branches.length === 0 || branches.includes(copy.branch)) &&
  (types.length === 0 || types.includes(copy.type));

interface Named {
  readonly code: string;
  readonly name: string;
}

/** What a roll is meant for, as "Millrace; Kit, Pattern"; '' for any copies. */
export function rollMeantFor(
  { branches = [], types = [] }: Pick<LabelRoll, 'branches' | 'types'>,
  lists: { readonly branches: readonly Named[]; readonly types: readonly Named[] },
): string {
  const names = (codes: readonly string[], list: readonly Named[]) =>
    codes.map((c) => list.find((e) => e.code === c)?.name ?? c).join(', ');
  return [names(branches, lists.branches), names(types, lists.types)].filter(Boolean).join('; ');
}
