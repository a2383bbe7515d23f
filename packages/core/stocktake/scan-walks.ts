import { codeTable } from '../barcodes';

/** Scans of a file that were walked together, in their order. */
export interface ScanWalk {
  /** As the file names the walk and its location; '' where it does not. */
  readonly walk: string;
  readonly place: string;
  readonly codes: readonly string[];
  /** Day of the walk, an ISO date; '' where the file does not say. */
  readonly on: string;
}

/** How the columns of a walk and of its location may be headed (common practice, no source). */
const [WALK, PLACE] = [
  /^(?:walk|run|session|scanner|device|scanned by)$/i,
  /^(?:location|location (?:walked|scanned)|scanned at)$/i,
];
/** Lines of a walk in which its day is looked for. */
const DATED = 20;

/** The walks of a hand scanner’s table: one, or as many as its columns of walks and locations tell apart, in the order in which they were begun. `isOnePlace`: what it says of locations is passed over. */
export function scanWalks(table: readonly (readonly string[])[], isOnePlace = false): ScanWalk[] {
  const { heads, rows, column } = codeTable(table, true);
  const [walk, place] = [WALK, PLACE].map((form) => heads.findIndex((h, i) => i !== column && form.test(h)));
  const walks = new Map<string, { walk: string; place: string; codes: string[]; first: string[][] }>();
  for (const row of rows) {
    const code = row[column];
    if (!code) continue;
    const [of, at] = [row[walk!] ?? '', isOnePlace ? '' : (row[place!] ?? '')];
    const key = JSON.stringify([of.toLowerCase(), at.toLowerCase()]);
    const known = walks.get(key) ?? { walk: of, place: at, codes: [], first: [] };
    walks.set(key, known);
    known.codes.push(code);
    if (known.first.length < DATED) known.first.push([...row]);
  }
  return [...walks.values()].map(({ first, ...rest }) => ({ ...rest, on: dayIn(first) }));
}

/** The first day that the lines say, as an ISO date; '' for none. */
function dayIn(rows: readonly (readonly string[])[]): string {
  for (const cell of rows.flat()) {
    const iso = /\b(20\d\d)-(\d\d)-(\d\d)/.exec(cell);
    const other = iso ? null : /\b(\d\d)[./](\d\d)[./](20\d\d)\b/.exec(cell);
    const day = iso ? `${iso[1]}-${iso[2]}-${iso[3]}` : other ? `${other[3]}-${other[2]}-${other[1]}` : '';
    if (day !== '' && !Number.isNaN(Date.parse(day))) return day;
  }
  return '';
}
