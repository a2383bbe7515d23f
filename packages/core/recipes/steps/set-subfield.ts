import { mapData, mapTexts } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { inQuotes, tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Gives a subfield a text, or adds it. */
export interface SetSubfieldStep {
  readonly step: 'set-subfield';
  readonly tags: Tags;
  readonly code: string;
  readonly value: string;
  readonly ifAbsent: boolean;
}

/** Gives a subfield a text, or adds it. */
export const setSubfieldStep: StepKind<SetSubfieldStep> = {
  step: 'set-subfield',
  name: 'set a subfield',
  parts: [
    parts.tags,
    parts.code,
    { key: 'value', kind: 'text', name: 'to', wanted: true },
    { key: 'ifAbsent', kind: 'flag', name: 'only if it is not there' },
  ],
  first: { step: 'set-subfield', tags: '040', code: 'd', value: '', ifAbsent: false },
  prepare:
    ({ tags, code, value, ifAbsent }) =>
    (record) =>
      mapData(record, tags, (f) => {
        if (!f.subfields.some((s) => s.code === code))
          return { ...f, subfields: [...f.subfields, { code, value }] };
        return ifAbsent ? f : mapTexts(f, code, () => value);
      }),
  sentence: ({ tags, code, value, ifAbsent }) =>
    `In ${tagsName(tags)}, set $${code} to ${inQuotes(value)}${ifAbsent ? ', if it is not there' : ''}`,
};
