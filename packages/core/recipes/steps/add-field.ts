import { fieldText, withField, type Field } from '../../marc';
import type { StepKind } from '../step-kind';

/** Adds a field at its place. */
export interface AddFieldStep {
  readonly step: 'add-field';
  readonly field: Field;
  readonly ifAbsent: boolean;
}

/** Adds a field at its place. */
export const addFieldStep: StepKind<AddFieldStep> = {
  step: 'add-field',
  name: 'add a field',
  parts: [
    { key: 'field', kind: 'field', name: 'the field' },
    { key: 'ifAbsent', kind: 'flag', name: 'only if there is none yet' },
  ],
  first: {
    step: 'add-field',
    field: { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: '' }] },
    ifAbsent: true,
  },
  prepare:
    ({ field, ifAbsent }) =>
    (record) =>
      ifAbsent && record.fields.some((f) => f.tag === field.tag) ? record : withField(record, field),
  sentence: ({ field, ifAbsent }) =>
    `Add ${fieldText(field)}${ifAbsent ? `, if there is no ${field.tag} yet` : ''}`,
  *problems({ field }) {
    if ('subfields' in field && !field.subfields.some((s) => s.value))
      yield 'The field that is added has no text.';
  },
};
