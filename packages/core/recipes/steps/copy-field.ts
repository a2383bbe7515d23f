import { fieldName } from '../../format';
import { isData, withField, type MarcRecord } from '../../marc';
import { matchesTags } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Copies fields under another tag. */
export interface CopyFieldStep {
  readonly step: 'copy-field';
  readonly tags: Tags;
  readonly to: string;
}

/** Copies fields under another tag. */
export const copyFieldStep: StepKind<CopyFieldStep> = {
  step: 'copy-field',
  name: 'copy fields',
  parts: [parts.tags, parts.to],
  first: { step: 'copy-field', tags: '100', to: '700' },
  prepare:
    ({ tags, to }) =>
    (record) =>
      record.fields
        .filter((f) => matchesTags(f.tag, tags) && isData(f) === !to.startsWith('00'))
        .reduce<MarcRecord>((r, f) => withField(r, { ...f, tag: to }), record),
  sentence: ({ tags, to }) => `Copy ${tagsName(tags)} to ${to} (${fieldName(to)})`,
};
