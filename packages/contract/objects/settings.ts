import { COPY_PARTS } from '@osier/core/holdings';
import type { FileFormat } from '@osier/core/marc';
import { OUTCOMES, POINTS, type Outcome, type PointKind } from '@osier/core/matching';
import { array, boolean, mixed, object } from 'yup';
import { amount, flag, listOf, wordOf, orNull, shape, text, under, whole } from '../answers';
import { code, id, line, price } from '../inputs';
import { number, string } from '../values';

const FORMATS = ['iso2709', 'marcxml', 'json', 'lines', 'csv'] as const;
const CHARSETS = ['found', 'utf8', 'marc8'] as const;
const FIRST_STATUSES = ['available', 'in transit', 'in repair', 'reserved'] as const;

const outcome = () =>
  mixed<Outcome>()
    .oneOf([...OUTCOMES], 'Choose an outcome.')
    .required('Choose an outcome.');
const weight = () =>
  number().integer().min(1, 'A weight is from 1 to 100.').max(100, 'A weight is from 1 to 100.').required();
/** A subfield code or a field address; core says which are right. */
const place = () => string().max(80).optional();
const table = () => mixed<Record<string, string>>().optional();
const byPart = <T>(made: () => T) =>
  Object.fromEntries(COPY_PARTS.map((p) => [p, made()])) as Record<(typeof COPY_PARTS)[number], T>;

/** What is done with a delivery, as it is sent; that codes are on their lists is looked at with the lists in hand. */
export const settingsShape = {
  format: mixed<'found' | FileFormat>()
    .oneOf(['found', ...FORMATS])
    .required(),
  charset: mixed<(typeof CHARSETS)[number]>()
    .oneOf([...CHARSETS])
    .required(),
  rule: object({
    points: array(
      object({
        by: mixed<PointKind>()
          .oneOf([...POINTS])
          .required(),
        weight: weight(),
        alone: boolean().required(),
      }),
    )
      .max(POINTS.length)
      .required(),
    guards: object({
      format: boolean().required(),
      part: boolean().required(),
      edition: boolean().required(),
      years: number().integer().min(0).max(500).nullable().defined(),
      title: boolean().required(),
    }).required(),
  }).required(),
  actions: object({ one: outcome(), several: outcome(), none: outcome() }).required(),
  recipe: line(40).defined(),
  protectedFields: array(string().max(3).required()).max(100).required(),
  mapping: object({
    tag: string().max(3).defined(),
    subfields: object(byPart(place)).required(),
    tables: object({ branch: table(), location: table(), type: table(), fund: table() }).required(),
  }).required(),
  defaults: object({
    branch: code().defined(),
    location: code().defined(),
    type: code().defined(),
    fund: line(60).defined(),
    supplier: line(60).defined(),
    price: price().defined(),
    status: mixed<(typeof FIRST_STATUSES)[number]>()
      .oneOf([...FIRST_STATUSES])
      .required(),
    copies: number().integer().min(0).max(99, 'At most 99 copies.').required(),
  }).required(),
  roll: id().nullable().defined(),
};

const codes = () => under(text()).optional();
const settingsParts = {
  format: wordOf(['found', ...FORMATS]),
  charset: wordOf(CHARSETS),
  rule: shape({
    points: listOf(shape({ by: wordOf(POINTS), weight: amount(), alone: flag() })),
    guards: shape({ format: flag(), part: flag(), edition: flag(), years: orNull(whole()), title: flag() }),
  }),
  actions: shape({ one: wordOf(OUTCOMES), several: wordOf(OUTCOMES), none: wordOf(OUTCOMES) }),
  recipe: text(),
  protectedFields: listOf(text()),
  mapping: shape({
    tag: text(),
    subfields: shape(byPart(() => text().optional())),
    tables: shape({ branch: codes(), location: codes(), type: codes(), fund: codes() }),
  }),
  defaults: shape({
    branch: text(),
    location: text(),
    type: text(),
    fund: text(),
    supplier: text(),
    price: orNull(whole()),
    status: wordOf(FIRST_STATUSES),
    copies: whole(),
  }),
  roll: orNull(whole()),
};
/** What is done with a delivery. */
export const settingsSchema = shape(settingsParts);
/** What is the same every time for one supplier. */
export const supplierSheetSchema = shape({
  ...settingsParts,
  name: text(),
  files: listOf(text()),
  organisations: listOf(text()),
});
