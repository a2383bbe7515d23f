import {
  array,
  boolean,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type InferType,
  type MixedSchema,
  type ObjectShape,
  type Schema,
} from 'yup';

/** Helpers for the schemas of answers: every part is there unless it says otherwise, and nothing else is. */

/** A text, which may be empty. */
export const text = () => string().defined().strict();
/** A number. */
export const amount = () => number().required().strict();
/** A whole number. */
export const whole = () => amount().integer();
/** Yes or no. */
export const flag = () => boolean().required().strict();
/** One of some words. */
export const wordOf = <const T extends string>(words: readonly T[]) =>
  mixed<T>()
    .oneOf([...words])
    .required();
/** An object with just these parts. */
export const shape = <const S extends ObjectShape>(parts: S) => object(parts).noUnknown().required().strict();
/** A list, which may be empty. */
export const listOf = <S extends Schema>(row: S) =>
  array(row as unknown as Schema<InferType<S>, AnyObject>)
    .required()
    .strict();
/** The same, or null. */
export const orNull = <S extends { nullable(): { defined(): unknown }; notRequired(): unknown }>(
  schema: S,
): ReturnType<ReturnType<S['nullable']>['defined']> =>
  schema.nullable().defined() as ReturnType<ReturnType<S['nullable']>['defined']>;

const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/** An object whose parts core says. */
export const objectOf = <T extends object>(description: string) =>
  mixed<T>((v): v is T => isObject(v))
    .required()
    .meta({ jsonSchema: { type: 'object', description } });
/** An object of any parts. */
export const anyObject = (description: string) => objectOf<Record<string, unknown>>(description);

/** Something that stands under each of any names. */
export const under = <T>(value: Schema<T, AnyObject>) =>
  mixed<Record<string, T>>(
    (v): v is Record<string, T> => isObject(v) && Object.values(v).every((x) => value.isValidSync(x)),
  )
    .required()
    .meta({ under: value });
/** Counts by any names. */
export const tally = () => under(whole());
/** A count by each of these names. */
export const tallyBy = <const T extends string>(names: readonly T[]) =>
  shape(Object.fromEntries(names.map((n) => [n, whole()])) as Record<T, ReturnType<typeof whole>>);

/** A value in one of two or three forms. */
export const eitherOf = <const S extends readonly Schema[]>(...forms: S): MixedSchema<InferType<S[number]>> =>
  mixed<InferType<S[number]>>((v): v is InferType<S[number]> => forms.some((f) => f.isValidSync(v)))
    .required()
    .meta({ eitherOf: forms });
