import { isData, type MarcRecord } from '../marc';

/**
 * Fields of a lost authority record that the kept one may get (MARC 21 Authority): see-also tracings (5XX), sources (670), dates (046), the
 * fuller form of a name (378), biographical data (678), notes of the cataloguer (667).
 */
export const TAKEN_FIELDS = ['5XX', '670', '046', '378', '678', '667'] as const;
export type TakenFields = (typeof TAKEN_FIELDS)[number];

const isOf = (tag: string, fields: TakenFields): boolean =>
  fields === '5XX' ? tag[0] === '5' : tag === fields;

/** Which of these fields an authority record has. */
export const takeableFields = (marc: MarcRecord): TakenFields[] =>
  TAKEN_FIELDS.filter((t) => marc.fields.some((f) => isData(f) && isOf(f.tag, t)));

/** An authority record with such fields of others: each once, in the order of tags. */
export function withTakenFields(
  kept: MarcRecord,
  others: readonly MarcRecord[],
  taken: readonly TakenFields[],
): MarcRecord {
  const fields = [...kept.fields];
  const known = new Set(fields.map((f) => JSON.stringify(f)));
  for (const f of others.flatMap((o) => o.fields)) {
    if (!isData(f) || !taken.some((t) => isOf(f.tag, t)) || known.has(JSON.stringify(f))) continue;
    known.add(JSON.stringify(f));
    const at = fields.findIndex((held) => held.tag > f.tag);
    fields.splice(at < 0 ? fields.length : at, 0, f);
  }
  return fields.length === kept.fields.length ? kept : { ...kept, fields };
}
