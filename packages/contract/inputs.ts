import { mixed, number as anyNumber, type NumberSchema } from 'yup';
import { isCurrency, WHAT_A_PRICE_IS } from '@osier/core/holdings';
import { number, string } from './values';

/** Helpers for the schemas of what is sent: bodies, and what stands behind a path. */

/** The number of an object. */
export const id = () => number().integer().positive();
/** A text of at most so many characters. */
export const line = (most = 200) => string().max(most, `At most ${most} characters.`);
/** A code of a list. */
export const code = () => string().max(20).matches(/^\S*$/, 'A code has no blanks.');
/** The version that somebody saw. */
export const version = () => number().integer().required();
/** A price in hundredths. */
export const price = () =>
  number()
    .typeError(WHAT_A_PRICE_IS)
    .integer('A price is in hundredths.')
    .min(0)
    .max(100_000_000_00, 'A price is up to 100,000,000.')
    .nullable();

/** The currency of a price; '' for the library's own. */
export const currency = () =>
  string().test(
    'currency',
    'A currency is a code of three capitals (ISO 4217), such as EUR.',
    (v) => !v || isCurrency(v),
  );

/** A whole number of a query, in digits; an empty one is none. */
export const wholeQuery = (): NumberSchema =>
  anyNumber()
    .transform((value: unknown, given: unknown) => {
      if (given === '') return undefined;
      if (typeof given !== 'string') return value;
      return /^\d{1,15}$/.test(given) ? Number(given) : NaN;
    })
    .typeError(({ path }: { path: string }) => `“${path}” is not a whole number.`)
    .integer();
/** Words of a search. */
export const wordsIn = () => line(500);

/** How holdings go with records that are exported: in them, in records of their own behind them, or not. */
export const holdingsAs = () =>
  mixed<'within' | 'apart' | 'none'>()
    .oneOf(['within', 'apart', 'none'], 'Holdings are within, apart or none.')
    .optional();
