import { mapData } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { inQuotes, tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Sets the mark at the end of fields, or deletes it. */
export interface EndMarkStep {
  readonly step: 'end-mark';
  readonly tags: Tags;
  readonly mark: string;
}

/** Sets the mark at the end of fields, or deletes it. */
export const endMarkStep: StepKind<EndMarkStep> = {
  step: 'end-mark',
  name: 'set the final punctuation',
  parts: [parts.tags, { key: 'mark', kind: 'text', name: 'mark (none: deleted)' }],
  first: { step: 'end-mark', tags: '500', mark: '.' },
  prepare:
    ({ tags, mark }) =>
    (record) =>
      mapData(record, tags, (f) => {
        let last = -1;
        f.subfields.forEach((s, i) => {
          if (/[a-z]/.test(s.code)) last = i;
        });
        const value = f.subfields[last]?.value;
        if (value === undefined) return f;
        const bare = value.replace(/(?:\s*[.,;:/=])+\s*$/, '').trimEnd();
        const next = bare === '' ? value : /[?!)\]”"»-]$/.test(bare) && mark === '.' ? bare : bare + mark;
        if (next === value) return f;
        return { ...f, subfields: f.subfields.map((s, i) => (i === last ? { ...s, value: next } : s)) };
      }),
  sentence: ({ tags, mark }) =>
    mark === ''
      ? `In ${tagsName(tags)}, delete the final punctuation`
      : `In ${tagsName(tags)}, end with ${inQuotes(mark)}`,
};
