import {
  array,
  boolean,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type ISchema,
  type Schema,
} from 'yup';

/**
 * Helpers for the schemas of answers: every part is there unless it says otherwise, and nothing else is.
 *
 * Their type says what such a part holds, and no more: with the types of Yup's own classes for a thousand parts, the compiler needed
 * twice the time for all sources.
 */
export interface Answer<T> extends ISchema<T, AnyObject, '', undefined> {
  /** The same, or left out. */
  optional(): Answer<T | undefined>;
  /** The same, or null. */
  nullable(): Answer<T | null>;
  /** The same, without a value of its own where it is left out. */
  default(value: undefined): Answer<T>;
  /** Whether a value is such a one. */
  isValidSync(value: unknown): value is T;
}

/** A schema as an object of Yup's own class, for those who look into it: every schema is one. */
export const schemaOf = (schema: ISchema<unknown>): Schema => schema as Schema;

type Parts = Record<string, ISchema<unknown, AnyObject>>;
type Held<S> = S extends { readonly __outputType: infer T } ? T : never;
type LeftOut<S> = { [K in keyof S]: undefined extends Held<S[K]> ? K : never }[keyof S];
type Whole<S> = { [K in Exclude<keyof S, LeftOut<S>>]: Held<S[K]> } & { [K in LeftOut<S>]?: Held<S[K]> };
/** What an object with these parts holds. */
export type HeldBy<S> = { [K in keyof Whole<S>]: Whole<S>[K] };

/** A text, which may be empty. */
export const text = (): Answer<string> => string().defined().strict();
/** A number. */
export const amount = (): Answer<number> => number().required().strict();
/** A whole number. */
export const whole = (): Answer<number> => number().required().strict().integer();
/** Yes or no. */
export const flag = (): Answer<boolean> => boolean().required().strict();
/** One of some words. */
export const wordOf = <const T extends string>(words: readonly T[]): Answer<T> =>
  mixed<T>()
    .oneOf([...words])
    .required();
/** An object with just these parts. */
export const shape = <S extends Parts>(parts: S): Answer<HeldBy<S>> =>
  object(parts).noUnknown().required().strict() as unknown as Answer<HeldBy<S>>;
/** A list, which may be empty. */
export const listOf = <T>(row: ISchema<T, AnyObject>): Answer<T[]> => array(row).required().strict();
/** The same, or null. */
export const orNull = <T>(schema: Answer<T>): Answer<T | null> => schema.nullable();

const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/** An object whose parts core says. */
export const objectOf = <T extends object>(description: string): Answer<T> =>
  mixed<T>((v): v is T => isObject(v))
    .required()
    .meta({ jsonSchema: { type: 'object', description } });
/** An object of any parts. */
export const anyObject = (description: string) => objectOf<Record<string, unknown>>(description);

/** Something that stands under each of any names. */
export const under = <T>(value: Answer<T>): Answer<Record<string, T>> =>
  mixed<Record<string, T>>(
    (v): v is Record<string, T> => isObject(v) && Object.values(v).every((x) => value.isValidSync(x)),
  )
    .required()
    .meta({ under: value });
/** Counts by any names. */
export const tally = () => under(whole());
/** A count by each of these names. */
export const tallyBy = <const T extends string>(names: readonly T[]) =>
  shape(Object.fromEntries(names.map((n) => [n, whole()])) as Record<T, Answer<number>>);

/** A value in one of two or three forms. */
export const eitherOf = <const S extends readonly Answer<NonNullable<unknown>>[]>(
  ...forms: S
): Answer<Held<S[number]>> =>
  mixed<Held<S[number]>>((v): v is Held<S[number]> => forms.some((f) => f.isValidSync(v)))
    .required()
    .meta({ eitherOf: forms });
