import { isData, placeFor, type DataField, type MarcRecord } from '../marc';
import type { EditStep } from './edit-step';
import type { EditTransaction } from './transaction';

/** Tags that a data field can have (ISO 2709: three characters; MARC 21 has digits, and 00X for control fields). */
export const isDataTag = (tag: string): boolean => /^(?!00)\d{3}$/.test(tag);

/**
 * Exchanges a data field for one of another tag, which then stands where fields of that tag go; $6 of its partner in another script
 * leads to it by the new tag (MARC 21, appendix A). `field` is its number afterwards. Throws a RangeError when no data field
 * stands there.
 */
export function withOtherTag(
  record: MarcRecord,
  at: number,
  field: DataField,
): { readonly transaction: EditTransaction; readonly field: number } {
  const there = record.fields[at];
  if (!there || !isData(there)) throw new RangeError('No data field stands there.');
  const rest = record.fields.filter((_, i) => i !== at);
  const to = placeFor({ ...record, fields: rest }, field.tag);
  return {
    field: to,
    transaction: [
      { step: 'fields', at, removed: [there], inserted: [field] },
      ...partnerStep(record, there, field.tag),
      ...(to === at ? [] : [{ step: 'move', from: at, to } as const]),
    ],
  };
}

function partnerStep(record: MarcRecord, there: DataField, tag: string): EditStep[] {
  const number = /^880-(\d\d)/.exec(there.subfields.find((s) => s.code === '6')?.value ?? '')?.[1];
  if (number === undefined || number === '00') return [];
  const link = `${there.tag}-${number}`;
  return record.fields.flatMap((partner, field): EditStep[] => {
    if (!isData(partner) || partner.tag !== '880') return [];
    const at = partner.subfields.findIndex((s) => s.code === '6' && s.value.startsWith(link));
    const was = partner.subfields[at];
    if (!was) return [];
    const inserted = [{ code: '6', value: tag + was.value.slice(3) }];
    return [{ step: 'subfields', field, at, removed: [was], inserted }];
  });
}
