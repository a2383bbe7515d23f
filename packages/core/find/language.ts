import type { AskedCondition } from './asked';
import { headingLeafPlan, leafPlan } from './leaf-plan';
import {
  FIND_INDEXES,
  HEADING_INDEXES,
  namesOf,
  type FindIndex,
  type FindWhere,
  type HeadingWhere,
} from './indexes';
import type { FindLeaf, HeadingLeaf, Plan } from './plan';

/** What may be asked of one kind of things: by which indexes, and how each condition is worked out. */
export interface FindLanguage<Leaf, Where = unknown> {
  readonly indexes: readonly FindIndex<Where>[];
  /** The index of a name, in any case; undefined for none. */
  readonly indexNamed: (name: string) => FindIndex<Where> | undefined;
  /** What one condition asks; throws `Unanswerable`. */
  readonly conditionOf: (index: FindIndex<Where>, asked: AskedCondition) => Plan<Leaf>;
  /** Lists of them can be sorted by a query. */
  readonly sorts: boolean;
}

function language<Leaf, Where>(
  indexes: readonly FindIndex<Where>[],
  sorts: boolean,
  leaf: (where: Where, asked: AskedCondition) => Plan<Leaf>,
): FindLanguage<Leaf, Where> {
  const named = namesOf(indexes);
  return {
    indexes,
    sorts,
    indexNamed: (name) => named.get(name.toLowerCase()),
    conditionOf: ({ where }, asked) => leaf(where, asked),
  };
}

/** What is asked of records with their holdings and copies. */
export const OF_RECORDS: FindLanguage<FindLeaf, FindWhere> = language(FIND_INDEXES, true, leafPlan);

/** What other catalogues may ask of them: by the public indexes, and of no words that are local. */
export const OF_OTHERS: FindLanguage<FindLeaf, FindWhere> = language(
  FIND_INDEXES.filter((i) => i.isPublic),
  true,
  (where, asked) =>
    leafPlan(
      where.as === 'words' && where.column === null ? { as: 'words', column: 'public' } : where,
      asked,
    ),
);

/** What is asked of headings. */
export const OF_HEADINGS: FindLanguage<HeadingLeaf, HeadingWhere> = language(
  HEADING_INDEXES,
  false,
  headingLeafPlan,
);
