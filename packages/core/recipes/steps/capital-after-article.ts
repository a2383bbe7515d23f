import { asHouseHas } from '../../checks';
import { languageOf, mapData, mapTexts } from '../select';
import type { StepKind } from '../step-kind';
import { PARTS as parts } from './parts';

/** Writes the word after an initial article as the house has it. */
export interface CapitalAfterArticleStep {
  readonly step: 'capital-after-article';
  readonly tag: string;
}

const AS: Readonly<Record<string, string>> = {
  small: 'small where the record shows that it is no name',
  capital: 'with a capital',
  'as it comes': 'as it comes (a house rule: nothing is changed)',
};

/** Writes the word after an initial article as the house has it. */
export const capitalAfterArticleStep: StepKind<CapitalAfterArticleStep> = {
  step: 'capital-after-article',
  name: 'first word after the initial article',
  parts: [parts.tag],
  first: { step: 'capital-after-article', tag: '245' },
  prepare:
    ({ tag }, { house }) =>
    (record) => {
      const language = languageOf(record);
      const written = (text: string) =>
        asHouseHas(text, language, record, house.wordAfterArticle, 'a common word') ?? text;
      return mapData(record, tag, (f) => mapTexts(f, 'a', written));
    },
  sentence: ({ tag }, { wordAfterArticle }) =>
    `In ${tag} $a, write the word after the initial article ${AS[wordAfterArticle] ?? 'as the house rules have it'}`,
};
