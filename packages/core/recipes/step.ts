import type { STEPS } from './steps/all';

/** The name of a kind of step. */
export type StepName = keyof typeof STEPS;

/** What a step does, without its condition. */
export type StepBody = { [N in StepName]: (typeof STEPS)[N]['first'] }[StepName];

/** One clean-up step, a plain value that reads itself as a sentence (`stepSentence`). */
export type Step = StepBody & {
  /** It runs only on records of which all of this holds. */
  readonly when?: Condition;
};

/** A condition on a record under which a step is run. */
export interface Condition {
  /** A field address (MARCspec) that the record has, and one that it lacks. */
  readonly has?: string;
  readonly lacks?: string;
  /** MARC language codes of 008/35–37. */
  readonly languages?: readonly string[];
  /** Letters of leader/06. */
  readonly types?: readonly string[];
  readonly suppliers?: readonly string[];
}

/** A named, ordered list of steps. */
export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly Step[];
}

/** A recipe of this library; its id is the number it is kept under. */
export type KeptRecipe = Omit<Recipe, 'id'>;
