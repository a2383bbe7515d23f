import { BRIEF_DAYS } from '@osier/core/neighbours';
import { addressProblem } from '@osier/core/neighbours';
import { boolean, mixed, object } from 'yup';
import { flag, shape, text, whole, wordOf } from '../answers';
import { line } from '../inputs';
import { number, string } from '../values';

/** The house rules about other catalogues, as they are sent. */
export const neighbourRulesBody = {
  askNeighbours: mixed<'in turn' | 'at once'>().oneOf(['in turn', 'at once']).default('in turn'),
  askAtNight: boolean().default(true),
  answersOthers: boolean().default(false),
  writesNumbers: boolean().default(false),
  briefDays: number()
    .integer('Type whole days.')
    .min(1, 'From 1 to 999 days.')
    .max(999, 'From 1 to 999 days.')
    .default(BRIEF_DAYS),
  cataloguingLanguage: string()
    .matches(/^[a-z]{3}$/, 'Three small letters (MARC Code List for Languages), such as eng.')
    .default('eng'),
  /** The shared file of names; no address for none. */
  registry: object({
    name: line(80).trim().default(''),
    address: line(500)
      .trim()
      .default('')
      .test('address', function (value = '') {
        const problem = value === '' ? null : addressProblem(value, 'sru');
        return problem === null || this.createError({ message: problem });
      }),
    agency: line(40)
      .trim()
      .matches(/^[^()\s]*$/, 'The code stands without brackets and blanks.')
      .default('')
      .test('agency', 'Type the code that stands before its numbers (003).', function (value) {
        const { address } = this.parent as { address?: string };
        return !address || Boolean(value);
      }),
  }).default(undefined),
};

/** The same as they are answered; those that a house never decided are not there. */
export const neighbourRulesAnswer = {
  askNeighbours: wordOf(['in turn', 'at once']).optional(),
  askAtNight: flag().optional(),
  answersOthers: flag().optional(),
  writesNumbers: flag().optional(),
  briefDays: whole().optional(),
  cataloguingLanguage: text().optional(),
  registry: shape({ name: text(), address: text(), agency: text() }).optional().default(undefined),
};
