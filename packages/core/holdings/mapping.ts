import { isAddress, parseAddress } from '../address';
import type { FieldFault } from './code-check';

/** What of a copy can be read from a field. */
export const COPY_PARTS = [
  'branch',
  'location',
  'type',
  'class',
  'item',
  'barcode',
  'part',
  'number',
  'price',
  'fund',
  'note',
  'staffNote',
  'supplier',
  'acquired',
  'condition',
  'loanRule',
  'status',
  'copies',
] as const;
export type CopyPart = (typeof COPY_PARTS)[number];

/** Parts whose codes can be translated. */
export type TablePart = 'branch' | 'location' | 'type' | 'fund';

/** Where copies stand in a supplier's records. */
export interface CopyMapping {
  /** `852`: one copy for each pair of 852 and 876, or 852 alone; another tag: one copy for each field; '' for none. */
  readonly tag: string;
  /**
   * Where each part stands: a subfield code of that field, or a field address (MARCspec) of anywhere in the record. A part
   * that is not there comes from the defaults.
   */
  readonly subfields: Readonly<Partial<Record<CopyPart, string>>>;
  /** Their codes in ours: `DVD=VID`. Codes that are not in a table are taken as they stand. */
  readonly tables: Readonly<Partial<Record<TablePart, Readonly<Record<string, string>>>>>;
}

/** What a copy gets that its record does not say. */
export interface CopyDefaults {
  readonly branch: string;
  readonly location: string;
  readonly type: string;
  readonly fund: string;
  readonly supplier: string;
  /** In hundredths; null for what the type costs. */
  readonly price: number | null;
  readonly status: 'available' | 'in transit' | 'in repair' | 'reserved';
  /** How many to make when the record has no copy data; 0 for titles only. */
  readonly copies: number;
}

/** 852 and 876 as the MARC 21 Format for Holdings Data has them. */
export const STANDARD_MAPPING: CopyMapping = {
  tag: '852',
  subfields: {
    branch: 'b',
    location: 'c',
    class: 'h',
    item: 'i',
    barcode: 'p',
    part: '3',
    number: 't',
    note: 'z',
    staffNote: 'x',
    condition: 'q',
  },
  tables: {},
};
/** Nothing is given that a record does not say. */
export const NO_DEFAULTS: CopyDefaults = {
  branch: '',
  location: '',
  type: '',
  fund: '',
  supplier: '',
  price: null,
  status: 'available',
  copies: 0,
};

/** What is wrong with a mapping, beside its part. */
export function mappingProblems({ tag, subfields }: CopyMapping): FieldFault[] {
  if (tag === '') return [];
  if (!/^(?!00)[0-9]{3}$/.test(tag))
    return [
      { field: 'mapping.tag', message: `“${tag}” is not a tag of a field with subfields: three digits.` },
    ];
  return Object.entries(subfields)
    .filter(([, code]) => !/^[a-z0-9]?$/.test(code))
    .flatMap(([part, written]) => {
      const address = isAddressLike(written) ? parseAddress(written) : null;
      if (address && isAddress(address)) return [];
      const why = address
        ? `not a field address: ${address.problem}`
        : 'not a subfield code: one small letter or digit.';
      return [{ field: `mapping.${part}`, message: `“${written}” is ${why}` }];
    });
}

/** Whether a part's place was written as a field address rather than as a subfield code. */
export const isAddressLike = (written: string): boolean => written.length > 2;
