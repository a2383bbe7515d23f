import { controlValue, dataFields, field, first, type Field, type MarcRecord } from '../marc';
import { recordDate } from './level';

/** A record of another library as it begins here, and what of it was left out. */
export interface Copied {
  readonly marc: MarcRecord;
  /** Tags of fields that are the other library's own, each once. */
  readonly left: readonly string[];
  /** When the other library changed it last, as an ISO date; '' where it does not say. */
  readonly changed: string;
}

/**
 * What belongs to the library that made a record and not to the book: its control number, time stamp and holdings (MARC 21, 841–878 but
 * for 856 and 857), and what is for local use (9XX and X9X, MARC 21 “Local fields”; 490 and the like are defined and stay).
 */
const isOwn = (tag: string): boolean =>
  /^(00[135]|84[1-5]|85[2-5]|858|859|86\d|87\d|9..|.9.)$/.test(tag) && tag !== '490';

/** A record taken over from a neighbour: its control number is kept in 035 with its organisation, its own fields are left out. */
export function copiedRecord(record: MarcRecord): Copied {
  const number = controlValue(record, '001')?.trim() ?? '';
  const organisation = controlValue(record, '003')?.trim() ?? '';
  const others = dataFields(record, '035').map((f) => first(f, 'a')?.trim());
  const system = organisation ? `(${organisation})${number}` : number;
  const kept = record.fields.filter((f) => !isOwn(f.tag));
  const fields: Field[] =
    number === '' || others.includes(system) ? kept : withSystemNumber(kept, field('035', '  ', 'a', system));
  const left = new Set(record.fields.filter((f) => isOwn(f.tag) && !/^00/.test(f.tag)).map((f) => f.tag));
  return { marc: { leader: record.leader, fields }, left: [...left].sort(), changed: recordDate(record) };
}

/** In its place by tag, behind others of the same. */
function withSystemNumber(fields: readonly Field[], number: Field): Field[] {
  const at = fields.findIndex((f) => f.tag > number.tag);
  return at < 0 ? [...fields, number] : [...fields.slice(0, at), number, ...fields.slice(at)];
}
