import { isControl, type Field, type MarcRecord } from '../marc';
import { transactionBetween, type EditTransaction } from './transaction';

/** What is sought in the texts of a record, and what stands in its place. */
export interface FindReplace {
  readonly find: string;
  readonly by: string;
  /** Small and capital letters are told apart. */
  readonly matchCase?: boolean;
  /** Only these fields, by their numbers; all when it is not given. */
  readonly among?: readonly number[];
}

/** What a replacing does, and how often. */
export interface Replaced {
  readonly transaction: EditTransaction;
  readonly count: number;
}

/** Replaces a text in every subfield of a record. Control fields, whose places have meanings, and links ($6) are left alone. */
export function replaceText(
  record: MarcRecord,
  { find, by, matchCase = false, among }: FindReplace,
): Replaced {
  if (find === '') return { transaction: [], count: 0 };
  const sought = new RegExp(find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), matchCase ? 'gu' : 'giu');
  let count = 0;
  const fields = record.fields.map((f, at): Field => {
    if (isControl(f) || (among && !among.includes(at))) return f;
    const subfields = f.subfields.map((s) => {
      if (s.code === '6') return s;
      const value = s.value.replace(sought, () => {
        count++;
        return by;
      });
      return value === s.value ? s : { ...s, value };
    });
    return { ...f, subfields };
  });
  return { transaction: transactionBetween(record, { ...record, fields }), count };
}
