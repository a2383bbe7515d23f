import { isData, type MarcRecord, type Where } from '../marc';

/**
 * The address of a place in a record, in the MARCspec syntax: `LDR/6`, `008/35-37`, `650[2]`, `245$a/4-6`. Read again
 * (`textsAt`) it gives the text of just that place; an index is left out where there is only one.
 */
export function addressOf(
  record: MarcRecord,
  { field, tag, occurrence, subfield, start, end }: Where,
): string {
  const characters = start === undefined ? '' : `/${start}${range(start, end)}`;
  if (field < 0) return `${tag}${characters}`;
  const which = indexed(tag, occurrence, record.fields.filter((f) => f.tag === tag).length);
  const found = record.fields[field];
  const parts = found && isData(found) ? found.subfields : [];
  const code = subfield === undefined ? undefined : parts[subfield]?.code;
  if (code === undefined) return `${which}${characters}`;
  const same = (some: typeof parts) => some.filter((s) => s.code === code).length;
  return `${which}${indexed(`$${code}`, same(parts.slice(0, subfield)), same(parts))}${characters}`;
}

const indexed = (what: string, index: number, of: number): string =>
  of > 1 || index > 0 ? `${what}[${index}]` : what;

/** The second end of a range, which counts its last character. */
const range = (start: number, end: number | undefined): string =>
  end === undefined || end - 1 <= start ? '' : `-${end - 1}`;
