import { number as anyNumber, string as anyString, type NumberSchema, type StringSchema } from 'yup';

/** Characters that no text here may have: controls but tab and line ends, halves of surrogate pairs, non-characters. */
const UNFIT =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** Whether a text can be kept, written and read back. */
export const isFit = (text: string): boolean => !UNFIT.test(text);

/** A text that can be kept. */
export const string = (): StringSchema =>
  anyString().test(
    'fit',
    'There is a control character in it, which cannot be kept.',
    (v) => typeof v !== 'string' || isFit(v),
  );

/** A number that is one: none that is beyond what can be counted exactly. */
export const number = (): NumberSchema =>
  anyNumber()
    .typeError('This is not a number.')
    .min(-Number.MAX_SAFE_INTEGER, 'The number is too small.')
    .max(Number.MAX_SAFE_INTEGER, 'The number is too large.');

/** A day of the calendar as YYYY-MM-DD, or nothing. */
export const isoDay = (): StringSchema =>
  string()
    .matches(/^(\d{4}-\d{2}-\d{2})?$/, 'A date is YYYY-MM-DD.')
    .test('calendar', 'There is no such day.', (v) => !v || !/^\d{4}-\d{2}-\d{2}$/.test(v) || isDay(v));

/** A day (YYYY-MM-DD) or an instant in UTC with milliseconds, as ISO 8601 writes it. */
export const isoDayOrInstant = (): StringSchema =>
  string().test(
    'time',
    'A day is YYYY-MM-DD, an instant YYYY-MM-DDThh:mm:ss.sssZ.',
    (v) => !v || (/^\d{4}-\d{2}-\d{2}$/.test(v) ? isDay(v) : isInstant(v)),
  );

function isInstant(text: string): boolean {
  const time = Date.parse(text);
  return !Number.isNaN(time) && new Date(time).toISOString() === text;
}

function isDay(text: string): boolean {
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
}
