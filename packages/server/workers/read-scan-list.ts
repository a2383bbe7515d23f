import { mayBeCode } from '@osier/core/barcodes';
import { scanWalks, type ScanWalk } from '@osier/core/stocktake';
import { decodedText } from '@osier/core/text';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { foreignFile } from './foreign-file';

/** Which file is read; `isOnePlace`: what it says of locations is passed over. */
export interface ScanListOrder {
  readonly path: string;
  readonly isOnePlace: boolean;
}

/** The walks of a hand scanner’s file; or why it is none, as a sentence. */
export type ScanList = { readonly walks: readonly ScanWalk[] } | { readonly problem: string };

const LONGEST_CODE = 60;
const MOST = 500_000;
const MOST_WALKS = 200;
/** Of so many lines one at least is a code. */
const CODES_AMONG = 20;
const WANTED = 'A scanner’s file is text: one barcode a line, or a table with a column of barcodes.';

/** Reads a hand scanner’s file: one code a line or a column of a table, in any encoding. */
export function readScanList({ path, isOnePlace }: ScanListOrder): ScanList {
  const bytes = readFileSync(path);
  const foreign = foreignFile(bytes);
  if (foreign) return { problem: `${foreign} ${WANTED}` };
  const text = decodedText(bytes);
  const { data } = Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    ...(isTable(text) ? {} : { delimiter: '\n' }),
  });
  const walks = scanWalks(data, isOnePlace);
  const codes = walks.flatMap((w) => w.codes);
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
  if (walks.length > MOST_WALKS)
    return {
      problem: `A file may have up to ${MOST_WALKS} walks; this one has ${walks.length}. Take out the column that names walks or locations if it says something else.`,
    };
  return { walks };
}

/** Whether most of the first lines have the same mark between cells. */
function isTable(text: string): boolean {
  const lines = text
    .slice(0, 4096)
    .split(/\r?\n/)
    .slice(0, 20)
    .filter((l) => l.trim() !== '');
  return [',', ';', '\t'].some(
    (mark) => lines.filter((l) => l.trim().includes(mark)).length * 2 > lines.length,
  );
}
