import type {
  CopyAmount,
  CopyColumn,
  EntryOf,
  HeadingWordsAt,
  HoldingColumn,
  KeyPoint,
  ValueColumn,
  WordsAt,
} from './indexes';

/** A word that is looked for, folded. */
export interface FindWord {
  readonly text: string;
  /** It may go on. */
  readonly isBeginning: boolean;
}

export type Comparison = '=' | '<' | '<=' | '>' | '>=';

/** A comparison of a text, that it begins so, or that it is in a range. */
export type ValueTest = Comparison | 'begins' | 'within';

/** Words of a text that has them in columns. */
export interface WordsLeaf<Column extends string | null> {
  readonly type: 'words';
  /** Null for any of them: all or any of the words may be in different ones, a phrase is within one. */
  readonly column: Column;
  readonly how: 'all' | 'any' | 'phrase';
  readonly words: readonly FindWord[];
  /** A phrase with which the text begins. */
  readonly isFirst: boolean;
}

/** What is asked of anything that is kept: what it is numbered, when and by whom it was written to. */
export type CommonLeaf =
  | { readonly type: 'everything' }
  | { readonly type: 'number'; readonly id: number }
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
  | { readonly type: 'person'; readonly name: string };

/** One condition on a record with its holdings and copies, with its values as they are kept. */
export type FindLeaf =
  | CommonLeaf
  | WordsLeaf<WordsAt>
  | { readonly type: 'key'; readonly point: KeyPoint; readonly key: string }
  | {
      readonly type: 'value';
      readonly of: 'record' | 'holding' | 'copy';
      readonly column: ValueColumn | HoldingColumn | CopyColumn;
      readonly is: ValueTest;
      readonly value: string;
      /** The end of a range, itself in it; '' for any other test. */
      readonly to: string;
      /** Prefixes of the call numbers that `value` and `to` are the places of, where they have one. */
      readonly prefixes?: readonly [of: string, to: string];
    }
  | { readonly type: 'count'; readonly of: 'holding' | 'copy'; readonly is: Comparison; readonly n: number }
  /** A number of a copy; one that is not known is none. */
  | { readonly type: 'amount'; readonly column: CopyAmount; readonly is: Comparison; readonly n: number }
  /** What a copy has in a local field, folded. */
  | {
      readonly type: 'local';
      readonly is: ValueTest;
      readonly value: string;
      readonly to: string;
    }
  | { readonly type: 'finding'; readonly rule: string }
  | { readonly type: 'flag'; readonly flag: 'suppressed' | 'brief' }
  /** A heading, or the one that it was merged into. */
  | { readonly type: 'heading'; readonly id: number }
  /** A delivery or pile by its number or its whole name, in any case. */
  | {
      readonly type: 'among';
      readonly of: 'delivery' | 'pile';
      readonly id: number | null;
      readonly name: string;
    };

/** One condition on a heading, with its values as they are kept. */
export type HeadingLeaf =
  | CommonLeaf
  | WordsLeaf<HeadingWordsAt>
  | {
      readonly type: 'value';
      readonly of: 'heading';
      readonly column: 'kind' | 'vocabulary';
      readonly is: ValueTest;
      readonly value: string;
      readonly to: string;
    }
  /** How many records carry it. */
  | { readonly type: 'count'; readonly of: 'record'; readonly is: Comparison; readonly n: number }
  | { readonly type: 'flag'; readonly flag: 'established' };

/** Conditions, joined. */
export type Plan<Leaf> = Leaf | JoinedPlan<Leaf> | NotPlan<Leaf>;

/** What a query asks of records, as it is worked out. A value is never there for what says nothing (an empty year). */
export type FindPlan = Plan<FindLeaf>;
/** What a query asks of headings, as it is worked out. */
export type HeadingPlan = Plan<HeadingLeaf>;

/** Why a query cannot be answered, as a sentence; with the number of the diagnostic that SRU has for it, and what it is about. */
export interface FindProblem {
  readonly problem: string;
  readonly code: number;
  readonly details: string;
}

/** Whether working out a query gave something to look for. */
export const isPlan = <P extends AnyPlan>(made: P | FindProblem): made is P => 'type' in made;
/** What a query asks of either. */
export type AnyPlan = Plan<FindLeaf | HeadingLeaf>;

type AnyLeaf = FindLeaf | HeadingLeaf;
/** Plans that are joined. */
export interface JoinedPlan<Leaf> {
  readonly type: 'and' | 'or';
  readonly of: readonly Plan<Leaf>[];
}
/** A plan turned round. */
export interface NotPlan<Leaf> {
  readonly type: 'not';
  readonly of: Plan<Leaf>;
}
/** Whether a plan is of plans that are joined. */
export const isJoined = <Leaf extends AnyLeaf>(plan: Plan<Leaf>): plan is JoinedPlan<Leaf> =>
  plan.type === 'and' || plan.type === 'or';
/** Whether a plan is another turned round. */
export const isNot = <Leaf extends AnyLeaf>(plan: Plan<Leaf>): plan is NotPlan<Leaf> => plan.type === 'not';

/** Plans joined into one; those that are joined in the same way already are taken apart first. */
export const joinedPlans = <Leaf extends AnyLeaf>(
  type: 'and' | 'or',
  of: readonly Plan<Leaf>[],
): Plan<Leaf> => ({ type, of: of.flatMap((p) => (isJoined(p) && p.type === type ? p.of : [p])) });
