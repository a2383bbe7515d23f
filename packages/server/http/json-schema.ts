import { convertSchema } from '@sodaru/yup-to-json-schema';
import type { Schema, SchemaDescription } from 'yup';

/** A JSON Schema, as OpenAPI 3.1 takes it (JSON Schema 2020-12). */
export type JsonSchema = Readonly<Record<string, unknown>>;

type Options = NonNullable<Parameters<typeof convertSchema>[1]>;
type Converters = NonNullable<Options['converters']>;
type Converted = ReturnType<typeof convertSchema>;

/** What the contract's helpers say of a value that Yup has no form for. */
interface Said {
  readonly eitherOf?: readonly Schema[];
  readonly under?: Schema;
  readonly jsonSchema?: JsonSchema;
}

type Fields = Readonly<Record<string, SchemaDescription & { readonly optional: boolean }>>;

const isNullable = (d: SchemaDescription): boolean => 'nullable' in d && d.nullable === true;
const orNull = (schema: JsonSchema, nullable: boolean): JsonSchema =>
  nullable ? { anyOf: [schema, { type: 'null' }] } : schema;

/** One of some words, one of several forms, or an object of any names. */
function mixed(description: SchemaDescription): JsonSchema {
  const said = (description.meta ?? {}) as Said;
  const nullable = isNullable(description);
  if (said.eitherOf) return orNull({ anyOf: said.eitherOf.map(jsonSchemaOf) }, nullable);
  if (said.under) return orNull({ type: 'object', additionalProperties: jsonSchemaOf(said.under) }, nullable);
  if (said.jsonSchema) return orNull(said.jsonSchema, nullable);
  return description.oneOf.length
    ? { enum: nullable ? [...description.oneOf, null] : description.oneOf }
    : {};
}

/** An object: Yup calls the absence of all its parts its default, which it is not. */
function object(description: SchemaDescription, converters: Converters): JsonSchema {
  const fields = Object.entries(('fields' in description ? description.fields : {}) as Fields);
  const properties = fields.map(([name, field]): [string, Converted] => [
    name,
    converters[field.type as keyof Converters](field, converters),
  ]);
  const required = fields.filter(([, field]) => !field.optional).map(([name]) => name);
  return {
    type: isNullable(description) ? ['object', 'null'] : 'object',
    properties: Object.fromEntries(properties),
    ...(required.length && { required }),
  };
}

const OWN = { mixed, object } as unknown as Converters;

/** A Yup schema as JSON Schema, by the kept library; the forms that only the contract knows are added here. */
export const jsonSchemaOf = (schema: Schema): JsonSchema =>
  convertSchema(schema as Parameters<typeof convertSchema>[0], { converters: OWN }) as JsonSchema;
