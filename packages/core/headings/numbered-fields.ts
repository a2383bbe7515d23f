import { isData, type DataField, type MarcRecord } from '../marc';
import { currentNumbers } from './authority-numbers';
import type { Heading } from './heading';
import { headingsIn, type HeadingUse } from './normal-form';

/** The number of a heading as $0 of a bibliographic field has it (MARC 21, Appendix A: the agency in brackets before it); null where it has none of an agency. */
export const numberForRecords = ({ marc }: Pick<Heading, 'marc'>): string | null =>
  currentNumbers(marc).find((n) => /^\([^()]+\)./.test(n)) ?? null;

/** A record whose fields have the numbers of their headings ($0), each once; what a field has already stays. */
export function withHeadingNumbers(
  record: MarcRecord,
  numberOf: (use: HeadingUse) => string | null,
): MarcRecord {
  const numbered = (f: DataField): DataField => {
    // Of a name with its title the number is that of both together.
    const use = headingsIn(f).at(-1);
    const number = use && numberOf(use);
    if (!number || f.subfields.some((s) => s.code === '0' && s.value.trim() === number)) return f;
    return { ...f, subfields: [...f.subfields, { code: '0', value: number }] };
  };
  return { ...record, fields: record.fields.map((f) => (isData(f) ? numbered(f) : f)) };
}
