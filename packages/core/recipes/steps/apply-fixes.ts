import { CHECKS, fixAll } from '../../checks';
import type { StepKind } from '../step-kind';

/** Applies the safe fixes of a check. */
export interface ApplyFixesStep {
  readonly step: 'apply-fixes';
  readonly rule: string;
}

/** Applies the safe fixes of a check. */
export const applyFixesStep: StepKind<ApplyFixesStep> = {
  step: 'apply-fixes',
  name: 'apply the safe fixes of a check',
  parts: [{ key: 'rule', kind: 'check', name: 'check' }],
  first: { step: 'apply-fixes', rule: '' },
  prepare({ rule }, checker) {
    const rules = new Set([rule]);
    return (record) => fixAll(record, checker, rules).record;
  },
  sentence: ({ rule }) => `Apply the safe fixes of “${CHECKS.find((c) => c.rule === rule)?.title ?? rule}”`,
};
