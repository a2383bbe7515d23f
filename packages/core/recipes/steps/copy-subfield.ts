import { mapData } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Copies subfields under another code, to the end of the field. */
export interface CopySubfieldStep {
  readonly step: 'copy-subfield';
  readonly tags: Tags;
  readonly code: string;
  readonly toCode: string;
}

/** Copies subfields under another code, to the end of the field. */
export const copySubfieldStep: StepKind<CopySubfieldStep> = {
  step: 'copy-subfield',
  name: 'copy subfields',
  parts: [parts.tags, parts.code, parts.toCode],
  first: { step: 'copy-subfield', tags: '020', code: 'a', toCode: 'z' },
  prepare:
    ({ tags, code, toCode }) =>
    (record) =>
      mapData(record, tags, (f) => {
        const copies = f.subfields.filter((s) => s.code === code).map((s) => ({ ...s, code: toCode }));
        return copies.length ? { ...f, subfields: [...f.subfields, ...copies] } : f;
      }),
  sentence: ({ tags, code, toCode }) => `In ${tagsName(tags)}, copy $${code} to $${toCode}`,
};
