import { isData, type DataField, type Field, type MarcRecord } from '../marc';
import type { EditTransaction } from './transaction';

/** Fields that may have a partner in another script (MARC 21, appendix A, lists those with $6). */
const LINKABLE = /^(?!880|00)\d{3}$/;

const linkOf = (f: Field): string =>
  isData(f) ? (f.subfields.find((s) => s.code === '6')?.value ?? '') : '';

/** Whether a field can be given a partner in another script: a data field that has none. */
export const canHavePartner = (f: Field): boolean => isData(f) && LINKABLE.test(f.tag) && linkOf(f) === '';

/**
 * Gives a field a partner 880 with the same indicators and codes, to be filled in another script; $6 of both lead to each other under
 * the next free number (MARC 21, appendix A: control subfield 6). `field` is the number of the 880 afterwards.
 */
export function withPartner(
  record: MarcRecord,
  at: number,
): { readonly transaction: EditTransaction; readonly field: number } | null {
  const there = record.fields[at];
  if (!there || !isData(there) || !canHavePartner(there)) return null;
  const used = record.fields.map((f) => Number(/^\d{3}-(\d\d)/.exec(linkOf(f))?.[1] ?? 0));
  const number = String(Math.max(0, ...used) + 1).padStart(2, '0');
  if (number.length > 2) return null;
  const link = { code: '6', value: `880-${number}` };
  const partner: DataField = {
    ...there,
    tag: '880',
    subfields: [{ code: '6', value: `${there.tag}-${number}` }, ...there.subfields],
  };
  const field = record.fields.length;
  return {
    field,
    transaction: [
      { step: 'subfields', field: at, at: 0, removed: [], inserted: [link] },
      { step: 'fields', at: field, removed: [], inserted: [partner] },
    ],
  };
}
