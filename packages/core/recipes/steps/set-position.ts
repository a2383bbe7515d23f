import { mapFields } from '../select';
import type { StepKind } from '../step-kind';
import { blankOr } from '../step-words';

/** Writes over positions of the leader or of a control field. */
export interface SetPositionStep {
  readonly step: 'set-position';
  readonly tag: 'LDR' | '006' | '007' | '008';
  readonly from: number;
  readonly text: string;
}

/** Writes over positions of the leader or of a control field; positions that are not there yet are filled with blanks. */
export const setPositionStep: StepKind<SetPositionStep> = {
  step: 'set-position',
  name: 'set positions of leader or control field',
  parts: [
    {
      key: 'tag',
      kind: 'choice',
      name: 'in',
      choices: [
        ['LDR', 'leader'],
        ['006', '006'],
        ['007', '007'],
        ['008', '008'],
      ],
    },
    { key: 'from', kind: 'number', name: 'from position' },
    { key: 'text', kind: 'text', name: 'to', wanted: true },
  ],
  first: { step: 'set-position', tag: 'LDR', from: 18, text: 'i' },
  prepare: ({ tag, from, text }) => {
    const set = (value: string) => value.slice(0, from).padEnd(from) + text + value.slice(from + text.length);
    if (tag === 'LDR')
      return (record) => {
        const leader = set(record.leader).slice(0, 24);
        return leader === record.leader ? record : { ...record, leader };
      };
    return (record) =>
      mapFields(record, (f) => {
        if (f.tag !== tag || !('value' in f)) return f;
        const value = set(f.value);
        return value === f.value ? f : { ...f, value };
      });
  },
  sentence: ({ tag, from, text }) =>
    `Set ${tag === 'LDR' ? 'leader' : tag}/${String(from).padStart(2, '0')} to ${blankOr(text)}`,
};
