import { mapData } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { blankOr, tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Sets an indicator. */
export interface SetIndicatorStep {
  readonly step: 'set-indicator';
  readonly tags: Tags;
  readonly which: 1 | 2;
  readonly value: string;
  readonly from?: string;
}

/** Sets an indicator. */
export const setIndicatorStep: StepKind<SetIndicatorStep> = {
  step: 'set-indicator',
  name: 'set an indicator',
  parts: [
    parts.tags,
    {
      key: 'which',
      kind: 'choice',
      name: 'indicator',
      choices: [
        [1, 'first'],
        [2, 'second'],
      ],
    },
    { key: 'value', kind: 'text', name: 'to' },
    { key: 'from', kind: 'text', name: 'where it is', optional: true },
  ],
  first: { step: 'set-indicator', tags: '650', which: 2, value: '0' },
  prepare:
    ({ tags, which, value, from }) =>
    (record) =>
      mapData(record, tags, (f) => {
        const now = which === 1 ? f.ind1 : f.ind2;
        if (now === value || (from !== undefined && now !== from)) return f;
        return which === 1 ? { ...f, ind1: value } : { ...f, ind2: value };
      }),
  sentence: ({ tags, which, value, from }) =>
    `In ${tagsName(tags)}, set indicator ${which} to ${blankOr(value)}${from === undefined ? '' : ` where it is ${blankOr(from)}`}`,
  *problems({ value }) {
    if (value.length !== 1) yield 'An indicator is one character.';
  },
};
