import { mapData } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Gives subfields another code. */
export interface MoveSubfieldStep {
  readonly step: 'move-subfield';
  readonly tags: Tags;
  readonly code: string;
  readonly toCode: string;
}

/** Gives subfields another code. */
export const moveSubfieldStep: StepKind<MoveSubfieldStep> = {
  step: 'move-subfield',
  name: 'move subfields to another code',
  parts: [parts.tags, parts.code, parts.toCode],
  first: { step: 'move-subfield', tags: '020', code: 'c', toCode: 'q' },
  prepare:
    ({ tags, code, toCode }) =>
    (record) =>
      mapData(record, tags, (f) =>
        code !== toCode && f.subfields.some((s) => s.code === code)
          ? { ...f, subfields: f.subfields.map((s) => (s.code === code ? { ...s, code: toCode } : s)) }
          : f,
      ),
  sentence: ({ tags, code, toCode }) => `In ${tagsName(tags)}, move $${code} to $${toCode}`,
};
