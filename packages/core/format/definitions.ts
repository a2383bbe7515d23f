import data from './data/bibliographic.json';

/** What MARC 21 says about one field. */
export interface FieldDefinition {
  readonly name: string;
  readonly repeatable: boolean;
  readonly indicators?: readonly (IndicatorDefinition | null)[];
  /** Code to its name and, when repeatable, 1. */
  readonly subfields?: Readonly<Record<string, readonly [string, 1?] | readonly (string | number)[]>>;
  /** Codes that were once defined. */
  readonly obsolete?: string;
  readonly positions?: Readonly<Record<string, readonly PositionDefinition[]>>;
}
export interface IndicatorDefinition {
  readonly name: string;
  readonly values: Readonly<Record<string, string>>;
}
/** Characters `from`..`to` (exclusive) of a fixed field. */
export interface PositionDefinition {
  readonly from: number;
  readonly to: number;
  readonly name: string;
  readonly codes: Readonly<Record<string, string>>;
}

const fields = data.fields as unknown as Record<string, FieldDefinition>;

/** The definition of a tag in the bibliographic format; undefined for tags that MARC 21 does not define. */
export const fieldDefinition = (tag: string): FieldDefinition | undefined => fields[tag];

/** Tags that MARC 21 leaves to the library: 9XX, X9X and XX9 (Format for Bibliographic Data, introduction). */
export const isLocalTag = (tag: string): boolean => /^9|^.9|9$/.test(tag);

/** Name of a field, such as "Title Statement". */
export function fieldName(tag: string): string {
  return fields[tag]?.name ?? (isLocalTag(tag) ? 'Local field' : 'Not defined in MARC 21');
}

/** Name of a subfield, such as "Remainder of title". */
export function subfieldName(tag: string, code: string): string | undefined {
  return fields[tag]?.subfields?.[code]?.[0] as string | undefined;
}

export const subfieldIsRepeatable = (tag: string, code: string): boolean =>
  fields[tag]?.subfields?.[code]?.[1] === 1;

/** What an indicator's value means here; undefined when the format does not define the value. */
export function indicatorMeaning(tag: string, which: 1 | 2, value: string): string | undefined {
  const definition = fields[tag]?.indicators?.[which - 1];
  if (!definition) return value === ' ' ? 'Undefined' : undefined;
  const found = definition.values[value] ?? definition.values[value === ' ' ? '#' : value];
  if (found) return `${definition.name}: ${found}`;
  for (const [range, meaning] of Object.entries(definition.values)) {
    const [low, high] = range.split('-');
    if (high !== undefined && value >= low! && value <= high) return `${definition.name}: ${meaning}`;
  }
  return undefined;
}
