import { isData } from '../../marc';
import { mapFields, SUBDIVIDED } from '../select';
import type { StepKind } from '../step-kind';

/** Deletes subject headings without a word in $a. */
export interface DropIncompleteHeadingsStep {
  readonly step: 'drop-incomplete-headings';
}

/** Deletes subject headings without a word in $a or $t. */
export const dropIncompleteHeadingsStep: StepKind<DropIncompleteHeadingsStep> = {
  step: 'drop-incomplete-headings',
  name: 'delete subject headings without a word in $a',
  parts: [],
  first: { step: 'drop-incomplete-headings' },
  prepare: () => (record) =>
    mapFields(record, (f) => {
      if (!isData(f) || !SUBDIVIDED.test(f.tag)) return f;
      return f.subfields.some((s) => 'at'.includes(s.code) && /[\p{L}\p{N}]/u.test(s.value)) ? f : null;
    }),
  sentence: () => 'Delete subject headings without a word in $a',
};
