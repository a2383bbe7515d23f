import type { CopyColumn, EntryOf, HoldingColumn, KeyPoint, ValueColumn, WordsAt } from './indexes';

/** A word that is looked for, folded. */
export interface FindWord {
  readonly text: string;
  /** It may go on. */
  readonly isBeginning: boolean;
}

export type Comparison = '=' | '<' | '<=' | '>' | '>=';

/** A comparison of a text, that it begins so, or that it is in a range. */
export type ValueTest = Comparison | 'begins' | 'within';

/** One condition, with its values as they are kept. */
export type FindLeaf =
  | { readonly type: 'everything' }
  | {
      readonly type: 'words';
      /** Null for any of them: all or any of the words may be in different ones, a phrase is within one. */
      readonly column: WordsAt;
      readonly how: 'all' | 'any' | 'phrase';
      readonly words: readonly FindWord[];
      /** A phrase with which the text begins. */
      readonly isFirst: boolean;
    }
  | { readonly type: 'key'; readonly point: KeyPoint; readonly key: string }
  | {
      readonly type: 'value';
      readonly of: 'record' | 'holding' | 'copy';
      readonly column: ValueColumn | HoldingColumn | CopyColumn;
      readonly is: ValueTest;
      readonly value: string;
      /** The end of a range, itself in it; '' for any other test. */
      readonly to: string;
    }
  | { readonly type: 'count'; readonly of: 'holding' | 'copy'; readonly is: Comparison; readonly n: number }
  | { readonly type: 'finding'; readonly rule: string }
  | { readonly type: 'flag'; readonly flag: 'suppressed' | 'brief' }
  | { readonly type: 'number'; readonly id: number }
  /** A heading, or the one that it was merged into. */
  | { readonly type: 'heading'; readonly id: number }
  /** Date and time of an entry of the daybook (ISO 8601, UTC). */
  | {
      readonly type: 'entry';
      readonly which: EntryOf;
      readonly is: ValueTest;
      readonly value: string;
      /** The end of a range, itself in it; '' for any other test. */
      readonly to: string;
    }
  /** The person of the last entry, by the whole name, in any case. */
  | { readonly type: 'person'; readonly name: string }
  /** A delivery or pile by its number or its whole name, in any case. */
  | {
      readonly type: 'among';
      readonly of: 'delivery' | 'pile';
      readonly id: number | null;
      readonly name: string;
    };

/** What a query asks, as it is worked out: conditions, joined. A value is never there for what says nothing (an empty year). */
export type FindPlan =
  | FindLeaf
  | { readonly type: 'and' | 'or'; readonly of: readonly FindPlan[] }
  | { readonly type: 'not'; readonly of: FindPlan };

/** Why a query cannot be answered, as a sentence; with the number of the diagnostic that SRU has for it, and what it is about. */
export interface FindProblem {
  readonly problem: string;
  readonly code: number;
  readonly details: string;
}

/** Whether working out a query gave something to look for. */
export const isPlan = (made: FindPlan | FindProblem): made is FindPlan => 'type' in made;

/** Plans joined into one; those that are joined in the same way already are taken apart first. */
export const joinedPlans = (type: 'and' | 'or', of: readonly FindPlan[]): FindPlan => ({
  type,
  of: of.flatMap((p) => (p.type === type ? p.of : [p])),
});
