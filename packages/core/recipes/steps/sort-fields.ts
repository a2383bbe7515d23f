import type { StepKind } from '../step-kind';

/** Puts fields in the order of their tags. */
export interface SortFieldsStep {
  readonly step: 'sort-fields';
}

/** Puts fields in the order of their tags; those of one tag stay in theirs. */
export const sortFieldsStep: StepKind<SortFieldsStep> = {
  step: 'sort-fields',
  name: 'sort the fields',
  parts: [],
  first: { step: 'sort-fields' },
  prepare: () => (record) => {
    const sorted = record.fields
      .map((f, i) => ({ f, i }))
      .sort((a, b) => (a.f.tag < b.f.tag ? -1 : a.f.tag > b.f.tag ? 1 : a.i - b.i))
      .map(({ f }) => f);
    return sorted.every((f, i) => f === record.fields[i]) ? record : { ...record, fields: sorted };
  },
  sentence: () => 'Put the fields in the order of their tags',
};
