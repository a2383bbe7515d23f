import type { HeadingColumn, HeadingWordsAt } from './indexes';
import { compares, holdsBy, holdsWords, isSo, sameName } from './holds';
import type { HeadingLeaf, HeadingPlan } from './plan';

/** A heading as it is looked at. */
export interface FindableHeading {
  readonly id: number;
  /** Its words, folded, by column. */
  readonly words: Readonly<Record<HeadingColumn, string>>;
  readonly kind: string;
  readonly vocabulary: string;
  /** How many records carry it. */
  readonly records: number;
  readonly isEstablished: boolean;
  /** When it was added, when and by whom it was changed last (UTC); null where nothing is known of it. */
  readonly entries: { readonly first: string; readonly last: string; readonly by: string } | null;
}

/** Whether a heading is found by a plan: the plain reading of it, against which every quicker one is held. */
export const isHeadingFound = (of: FindableHeading, plan: HeadingPlan): boolean =>
  holdsBy(plan, (leaf) => holds(of, leaf));

function holds(of: FindableHeading, leaf: HeadingLeaf): boolean {
  switch (leaf.type) {
    case 'everything':
      return true;
    case 'number':
      return of.id === leaf.id;
    case 'words':
      return holdsWords(
        leaf,
        columnsOf(leaf.column).map((column) => of.words[column]),
      );
    case 'value':
      return of[leaf.column] !== '' && isSo(of[leaf.column], leaf);
    case 'count':
      return compares(of.records, leaf.is, leaf.n);
    case 'flag':
      return of.isEstablished;
    case 'entry':
      return of.entries !== null && isSo(of.entries[leaf.which], leaf);
    case 'person':
      return of.entries !== null && sameName(of.entries.by, leaf.name);
  }
}

const ALL: readonly HeadingColumn[] = ['form', 'seefrom', 'seealso', 'note', 'identifier'];
const columnsOf = (at: HeadingWordsAt): readonly HeadingColumn[] =>
  at === null ? ALL : at === 'forms' ? ['form', 'seefrom'] : [at];
