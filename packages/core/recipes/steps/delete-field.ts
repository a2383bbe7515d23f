import { matcher } from '../expression';
import { chosen, matchesTags, textOf } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags, TextMatch, Which } from '../step-values';
import { matching, whichName } from '../step-words';
import { PARTS } from './parts';

/** Deletes fields. */
export interface DeleteFieldStep {
  readonly step: 'delete-field';
  readonly tags: Tags;
  readonly which: Which;
  readonly match?: TextMatch;
}

/** Deletes fields. */
export const deleteFieldStep: StepKind<DeleteFieldStep> = {
  step: 'delete-field',
  name: 'delete fields',
  parts: [PARTS.tags, PARTS.which, PARTS.match],
  first: { step: 'delete-field', tags: '9..', which: 'all' },
  prepare(step) {
    const matches = matcher(step.match);
    return (record) => {
      const found = record.fields.flatMap((f, i) =>
        matchesTags(f.tag, step.tags) && matches(textOf(f)) ? [i] : [],
      );
      const goes = chosen(found, step.which);
      return goes.size ? { ...record, fields: record.fields.filter((_, i) => !goes.has(i)) } : record;
    };
  },
  sentence: (step) =>
    `Delete ${whichName(step.which)} ${step.tags.replaceAll('.', 'X')}${matching(step.match)}`,
};
