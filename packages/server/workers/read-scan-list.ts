import { codesOf, mayBeCode } from '@osier/core/barcodes';
import { decodedText } from '@osier/core/text';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { foreignFile } from './foreign-file';

/** The scans of a hand scanner’s file, and the day of the walk where the file says it; or why it is none, as a sentence. */
export type ScanList =
  { readonly codes: readonly string[]; readonly on: string } | { readonly problem: string };

const LONGEST_CODE = 60;
const MOST = 500_000;
/** Of so many lines one at least is a code. */
const CODES_AMONG = 20;
const WANTED = 'A scanner’s file is text: one barcode a line, or a table with a column of barcodes.';

/** Reads a hand scanner’s file: one code a line or a column of a table, in any encoding. */
export function readScanList(path: string): ScanList {
  const bytes = readFileSync(path);
  const foreign = foreignFile(bytes);
  if (foreign) return { problem: `${foreign} ${WANTED}` };
  const { data } = Papa.parse<string[]>(decodedText(bytes), {
    skipEmptyLines: 'greedy',
    ...(isTable(bytes) ? {} : { delimiter: '\n' }),
  });
  const codes = codesOf(data, true);
  if (codes.length === 0) return { problem: `There is no barcode in this file. ${WANTED}` };
  const long = codes.find((c) => c.length > LONGEST_CODE);
  if (long !== undefined)
    return {
      problem: `This does not look like a scanner’s file: “${long.slice(0, 30)}…”. One barcode a line is expected.`,
    };
  if (codes.length > MOST) return { problem: `A file may have up to ${MOST.toLocaleString('en-GB')} scans.` };
  const some = codes.slice(0, 2000);
  if (some.filter(mayBeCode).length * CODES_AMONG < some.length)
    return { problem: `This does not look like a scanner’s file: “${some[0] ?? ''}”. ${WANTED}` };
  return { codes, on: dayIn(data.slice(0, 20)) };
}

/** Whether most of the first lines have the same mark between cells. */
function isTable(bytes: Buffer): boolean {
  const lines = decodedText(bytes.subarray(0, 4096))
    .split(/\r?\n/)
    .slice(0, 20)
    .filter((l) => l.trim() !== '');
  return [',', ';', '\t'].some(
    (mark) => lines.filter((l) => l.trim().includes(mark)).length * 2 > lines.length,
  );
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
