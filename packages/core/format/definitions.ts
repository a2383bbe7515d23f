import authority from './data/authority.json';
import bibliographic from './data/bibliographic.json';
import holdings from './data/holdings.json';

/** The three MARC 21 formats that records come in. */
export type Format = 'bibliographic' | 'authority' | 'holdings';

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
/** What an indicator means, and which values it may have. */
export interface IndicatorDefinition {
  readonly name: string;
  readonly values: Readonly<Record<string, string>>;
  /** Values that were once defined. */
  readonly obsolete?: Readonly<Record<string, string>>;
}
/** Characters `from`..`to` (exclusive) of a fixed field. */
export interface PositionDefinition {
  readonly from: number;
  readonly to: number;
  readonly name: string;
  /** Length of one code when several stand side by side. */
  readonly unit?: number;
  readonly codes: Readonly<Record<string, string>>;
  readonly obsolete?: Readonly<Record<string, string>>;
}

type Fields = Record<string, FieldDefinition>;
const FORMATS: Record<Format, Fields> = {
  bibliographic: bibliographic.fields as unknown as Fields,
  authority: authority.fields as unknown as Fields,
  holdings: holdings.fields as unknown as Fields,
};

/** Which format a record is in, by leader/06 (z authority; u, v, x, y holdings). */
export function formatOf(leader: string): Format {
  const type = leader[6] ?? 'a';
  if (type === 'z') return 'authority';
  return 'uvxy'.includes(type) ? 'holdings' : 'bibliographic';
}

/** Fields of the holdings format that may stand in bibliographic records (Format for Holdings Data, introduction). */
const EMBEDDED = /^8(4[1-5]|5[2-5]|6[3-8]|7[678])$/;

/** Every format with the fields it defines. */
export const DEFINED_FIELDS = FORMATS;

/** The definition of a tag; undefined for tags that the format does not define. */
export const fieldDefinition = (tag: string, format: Format = 'bibliographic'): FieldDefinition | undefined =>
  FORMATS[format][tag] ??
  (format === 'bibliographic' && EMBEDDED.test(tag) ? FORMATS.holdings[tag] : undefined);

/** The subfield codes that a field has, and those among them that may stand once. */
export interface FieldCodes {
  readonly defined: string;
  readonly single: string;
  /** Whether anything of it is obsolete. */
  readonly aged: boolean;
}
/** The subfield codes of a field, for quick looking up. */
export function fieldCodes(definition: FieldDefinition): FieldCodes {
  const all = Object.entries(definition.subfields ?? {});
  const single = all.filter(([, s]) => s[1] !== 1).map(([code]) => code);
  return {
    defined: all.map(([code]) => code).join(''),
    single: single.join(''),
    aged: !!definition.obsolete || !!definition.indicators?.some((i) => i?.obsolete),
  };
}

/** Tags that MARC 21 leaves to the library: 9XX, X9X and XX9, but for 490 (Format for Bibliographic Data, introduction). */
export const isLocalTag = (tag: string): boolean =>
  tag !== '490' && (tag[0] === '9' || tag[1] === '9' || (tag[2] === '9' && tag !== '009'));

/**
 * Bibliographic fields that were once defined (Format for Bibliographic Data, appendix G: content designators made
 * obsolete; from memory).
 */
const OBSOLETE_TAGS = new Set(
  (
    '002 004 009 011 039 087 211 212 214 241 261 262 265 301 302 303 304 305 308 315 320 350 359 400 410 411 440 ' +
    '503 512 517 523 527 537 543 570 582 652 680 681 683 705 715 755 840 851 870 871 872 873'
  ).split(' '),
);
/** Whether MARC 21 has made a tag obsolete. */
export const isObsoleteTag = (tag: string, format: Format = 'bibliographic'): boolean =>
  format === 'bibliographic' && OBSOLETE_TAGS.has(tag);

/** The tags that a format defines for records of their own, with the names of their fields, in order. */
export const fieldTags = (format: Format): readonly { readonly tag: string; readonly name: string }[] =>
  Object.entries(FORMATS[format])
    .filter(([tag]) => /^\d{3}$/.test(tag))
    .map(([tag, { name }]) => ({ tag, name }))
    .sort((a, b) => (a.tag < b.tag ? -1 : 1));

/** Name of a field, such as "Title Statement". */
export function fieldName(tag: string, format: Format = 'bibliographic'): string {
  return fieldDefinition(tag, format)?.name ?? (isLocalTag(tag) ? 'Local field' : 'Not defined in MARC 21');
}

/** Name of a subfield, such as "Remainder of title". */
export function subfieldName(
  tag: string,
  code: string,
  format: Format = 'bibliographic',
): string | undefined {
  return fieldDefinition(tag, format)?.subfields?.[code]?.[0] as string | undefined;
}

/** What an indicator's value means here; undefined when the format does not define the value. */
export function indicatorMeaning(
  tag: string,
  which: 1 | 2,
  value: string,
  format: Format = 'bibliographic',
): string | undefined {
  const definition = fieldDefinition(tag, format)?.indicators?.[which - 1];
  if (!definition) return value === ' ' ? 'Undefined' : undefined;
  const found = codeMeaning(value, definition.values);
  return found === undefined ? undefined : `${definition.name}: ${found}`;
}

/** The meaning of a code, also where a range such as `1-9` or `001-999` is given. */
export function codeMeaning(value: string, codes: Readonly<Record<string, string>>): string | undefined {
  const found = codes[value];
  if (found !== undefined) return found;
  for (const range of Object.keys(codes)) {
    if (range.length !== 2 * value.length + 1 || range[value.length] !== '-') continue;
    if (value >= range.slice(0, value.length) && value <= range.slice(value.length + 1)) return codes[range];
  }
  return undefined;
}
