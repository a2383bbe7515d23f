import type { RecordView } from '../view';

/** The 008 of a book (leader/06 a or t, leader/07 not serial) when it is long enough to hold its codes. */
export function bookFixed(view: RecordView): { readonly value: string; readonly at: number } | undefined {
  const { leader } = view.record;
  const isBook = 'at'.includes(leader[6] ?? ' ') && !'bis'.includes(leader[7] ?? ' ');
  const fixed = view.control('008');
  return isBook && fixed && fixed.value.length >= 35 ? fixed : undefined;
}
