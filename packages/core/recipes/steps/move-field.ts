import { fieldName } from '../../format';
import { isData, withField, type MarcRecord } from '../../marc';
import { matchesTags } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Gives fields another tag, and the place of it. */
export interface MoveFieldStep {
  readonly step: 'move-field';
  readonly tags: Tags;
  readonly to: string;
}

/** Gives fields another tag, and the place of it. */
export const moveFieldStep: StepKind<MoveFieldStep> = {
  step: 'move-field',
  name: 'move fields to another tag',
  parts: [parts.tags, parts.to],
  first: { step: 'move-field', tags: '440', to: '490' },
  prepare:
    ({ tags, to }) =>
    (record) => {
      const moving = record.fields.filter(
        (f) => matchesTags(f.tag, tags) && f.tag !== to && isData(f) === !to.startsWith('00'),
      );
      if (moving.length === 0) return record;
      const rest: MarcRecord = { ...record, fields: record.fields.filter((f) => !moving.includes(f)) };
      return moving.reduce<MarcRecord>((r, f) => withField(r, { ...f, tag: to }), rest);
    },
  sentence: ({ tags, to }) => `Move ${tagsName(tags)} to ${to} (${fieldName(to)})`,
};
