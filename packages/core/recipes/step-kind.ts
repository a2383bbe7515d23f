import type { Checker } from '../checks';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';

/** How a part of a step is written. */
export type StepPartKind =
  | 'tags'
  | 'tag'
  | 'code'
  | 'codes'
  | 'text'
  | 'number'
  | 'flag'
  | 'which'
  | 'choice'
  | 'match'
  | 'table'
  | 'field'
  | 'built parts'
  | 'check';

/** One thing that a person fills in for a step. */
export interface StepPart<Key extends string = string> {
  readonly key: Key;
  readonly kind: StepPartKind;
  readonly name: string;
  /** It may be left out. */
  readonly optional?: boolean;
  /** A text that may not be empty: without it the step does nothing, or more than is meant. */
  readonly wanted?: boolean;
  /** What can be chosen, with how it is called. */
  readonly choices?: readonly (readonly [value: string | number, name: string])[];
}

/** What a step makes of a record; the same value when it has nothing to do. */
export type StepRun = (record: MarcRecord) => MarcRecord;

/** All that is known of one kind of step. `S` is what a step of it holds. */
export interface StepKind<S extends { readonly step: string }> {
  readonly step: S['step'];
  /** What it does, as it is offered. */
  readonly name: string;
  /** What a person fills in, in order. */
  readonly parts: readonly StepPart<Exclude<keyof S, 'step'> & string>[];
  /** A first value to begin from. */
  readonly first: S;
  /** Prepares the step once, for many records; the checker has the house rules. */
  readonly prepare: (step: S, checker: Checker) => StepRun;
  /** The step as a sentence without its end. */
  readonly sentence: (step: S, house: HouseRules) => string;
  /** What is wrong with it beside what its parts show, as sentences. */
  readonly problems?: (step: S) => Iterable<string>;
}
