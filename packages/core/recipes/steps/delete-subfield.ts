import { matcher } from '../expression';
import { chosen, mapData, without } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags, TextMatch, Which } from '../step-values';
import { matching, tagsName, whichName } from '../step-words';
import { PARTS as parts } from './parts';

/** Deletes subfields; a field goes with its last one. */
export interface DeleteSubfieldStep {
  readonly step: 'delete-subfield';
  readonly tags: Tags;
  readonly code: string;
  readonly which: Which;
  readonly match?: TextMatch;
}

/** Deletes subfields; a field goes with its last one. */
export const deleteSubfieldStep: StepKind<DeleteSubfieldStep> = {
  step: 'delete-subfield',
  name: 'delete subfields',
  parts: [parts.tags, parts.code, parts.which, parts.match],
  first: { step: 'delete-subfield', tags: '650', code: '0', which: 'all' },
  prepare({ tags, code, which, match }) {
    const matches = matcher(match);
    return (record) =>
      mapData(record, tags, (f) => {
        const found = f.subfields.flatMap((s, i) => (s.code === code && matches(s.value) ? [i] : []));
        const goes = chosen(found, which);
        return without(f, (_, i) => goes.has(i));
      });
  },
  sentence: ({ tags, code, which, match }) =>
    `In ${tagsName(tags)}, delete ${whichName(which)} $${code}${matching(match)}`,
};
