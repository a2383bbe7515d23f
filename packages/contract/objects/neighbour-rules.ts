import { BRIEF_DAYS } from '@osier/core/neighbours';
import { boolean, mixed } from 'yup';
import { flag, text, whole, wordOf } from '../answers';
import { number, string } from '../values';

/** The house rules about other catalogues, as they are sent. */
export const neighbourRulesBody = {
  askNeighbours: mixed<'in turn' | 'at once'>().oneOf(['in turn', 'at once']).default('in turn'),
  askAtNight: boolean().default(true),
  answersOthers: boolean().default(false),
  briefDays: number()
    .integer('Type whole days.')
    .min(1, 'From 1 to 999 days.')
    .max(999, 'From 1 to 999 days.')
    .default(BRIEF_DAYS),
  cataloguingLanguage: string()
    .matches(/^[a-z]{3}$/, 'Three small letters (MARC Code List for Languages), such as eng.')
    .default('eng'),
};

/** The same as they are answered; those that a house never decided are not there. */
export const neighbourRulesAnswer = {
  askNeighbours: wordOf(['in turn', 'at once']).optional(),
  askAtNight: flag().optional(),
  answersOthers: flag().optional(),
  briefDays: whole().optional(),
  cataloguingLanguage: text().optional(),
};
