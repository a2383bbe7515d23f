import { nearest } from '../text';
import type { CodeLists, Coded } from './objects';

/** A value that is not right, beside the field it concerns. */
export interface FieldFault {
  readonly field: string;
  readonly message: string;
  /** Who sent it may have it all the same, on purpose. */
  readonly overrulable?: boolean;
}

/** A code that is not on its list, with the nearest right ones; null when it is there. Capitals count. */
export function codeProblem(
  field: string,
  what: string,
  code: string,
  list: readonly Coded[],
): FieldFault | null {
  if (list.some((entry) => entry.code === code)) return null;
  if (list.length === 0) return { field, message: `There is no ${what} yet. Add one in Set-up first.` };
  const near = nearest(
    code,
    list.map((entry) => entry.code),
    2,
  )
    .map((c) => `${c} (${list.find((e) => e.code === c)!.name})`)
    .join(' or ');
  return {
    field,
    message: code === '' ? `Choose a ${what}.` : `“${code}” is not a ${what} here. Nearest: ${near}.`,
  };
}

/** What is wrong with a copy's fund and supplier, which it need not have. */
export function sourceProblems(
  { fund, supplier }: { fund: string; supplier: string },
  lists: CodeLists,
): FieldFault[] {
  return [
    fund === '' ? null : codeProblem('fund', 'fund', fund, lists.funds),
    supplier === '' ? null : codeProblem('supplier', 'supplier', supplier, lists.suppliers),
  ].filter((p) => p !== null);
}

/** What is wrong with the branch and location of a holding. */
export function placeProblems(place: { branch: string; location: string }, lists: CodeLists): FieldFault[] {
  const branch = codeProblem('branch', 'branch', place.branch, lists.branches);
  if (branch) return [branch];
  const location = codeProblem(
    'location',
    'location',
    place.location,
    lists.locations.filter((l) => l.branch === place.branch),
  );
  return location ? [location] : [];
}
