import { array, boolean, object, type InferType } from 'yup';
import { string } from '../values';

/** MARC 21 Specifications for Record Structure: a subfield code and an indicator are one graphic character of ASCII. */
const sentSubfield = object({
  code: string()
    .matches(/^[!-~]$/, 'A subfield code is one letter, digit or mark of ASCII.')
    .required(),
  value: string().max(99999).defined(),
});
const indicator = () =>
  string()
    .matches(/^[ 0-9a-z|]$/, 'An indicator is a blank, a digit or a small letter.')
    .optional();
const sentField = object({
  tag: string()
    .matches(/^[0-9A-Z]{3}$/, 'A tag has three digits.')
    .required(),
  value: string().max(99999).optional(),
  ind1: indicator(),
  ind2: indicator(),
  subfields: array(sentSubfield).max(2000).optional(),
});
/** A record’s leader and fields as they are sent. */
export const marcBody = object({
  leader: string()
    .matches(/^[ -~]{24}$/, 'A leader has 24 characters of ASCII.')
    .required(),
  fields: array(sentField).max(2000).required(),
});
export type MarcBody = InferType<typeof marcBody>;
/** Whether a record is saved although checks find errors in it. */
export const withErrors = () => boolean().default(false);
