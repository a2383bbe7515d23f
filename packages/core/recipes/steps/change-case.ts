import { inCase } from '../letter-case';
import { languageOf, mapData, mapTexts } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { codesName, tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Writes subfields in capitals, in small letters, or as titles and sentences have them. */
export interface ChangeCaseStep {
  readonly step: 'change-case';
  readonly tags: Tags;
  readonly codes: string;
  readonly to: 'sentence' | 'title' | 'lower' | 'upper';
}

const AS = {
  sentence: 'as a sentence',
  title: 'with capital words',
  lower: 'in small letters',
  upper: 'in capitals',
};

/** Writes subfields in capitals, in small letters, or as titles and sentences have them. */
export const changeCaseStep: StepKind<ChangeCaseStep> = {
  step: 'change-case',
  name: 'change capitals',
  parts: [
    parts.tags,
    parts.codes,
    {
      key: 'to',
      kind: 'choice',
      name: 'to',
      choices: [
        ['sentence', 'as a sentence'],
        ['title', 'capital words'],
        ['lower', 'small letters'],
        ['upper', 'capitals'],
      ],
    },
  ],
  first: { step: 'change-case', tags: '245', codes: 'ab', to: 'sentence' },
  prepare:
    ({ tags, codes, to }) =>
    (record) => {
      const language = languageOf(record);
      return mapData(record, tags, (f) => mapTexts(f, codes, (text) => inCase(text, to, language)));
    },
  sentence: ({ tags, codes, to }) => `In ${tagsName(tags)}, write ${codesName(codes)} ${AS[to]}`,
};
