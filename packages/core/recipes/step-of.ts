import type { Checker } from '../checks';
import type { HouseRules } from '../house';
import type { StepBody, StepName } from './step';
import type { StepPart, StepRun } from './step-kind';
import { STEPS } from './steps/all';

/** A kind of step whose steps may be of any kind: what is asked of it is asked of a step of that kind. */
export interface AnyStepKind {
  readonly step: StepName;
  readonly name: string;
  readonly parts: readonly StepPart[];
  readonly first: StepBody;
  readonly prepare: (step: StepBody, checker: Checker) => StepRun;
  readonly sentence: (step: StepBody, house: HouseRules) => string;
  readonly problems?: (step: StepBody) => Iterable<string>;
}

/** The kind of a step; undefined for one that there is none of (a file from elsewhere). */
export const kindOf = (step: { readonly step: string }): AnyStepKind | undefined =>
  Object.hasOwn(STEPS, step.step) ? (STEPS[step.step as StepName] as unknown as AnyStepKind) : undefined;

/** The same of a step that is known to have one. */
export function stepKind(step: StepBody): AnyStepKind {
  const kind = kindOf(step);
  if (!kind) throw new Error(`There is no step “${step.step}”.`);
  return kind;
}

/** Every kind of step, in the order in which they are offered. */
export const STEP_KINDS: readonly AnyStepKind[] = Object.values(STEPS).map((k) => stepKind(k.first));
