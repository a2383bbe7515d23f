import { loanFigures, type LoanFigures } from '@osier/core/holdings';
import { decodedText } from '@osier/core/text';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { foreignFile } from './foreign-file';

const MOST = 1_000_000;
const WANTED = 'A table with a column of barcodes and one of loans is expected.';

/** Reads a table of how often copies were lent, in any encoding, with commas, semicolons or tabs; `on` is today. */
export function readLoanFigures({ path, on }: { readonly path: string; readonly on: string }): LoanFigures {
  const bytes = readFileSync(path);
  const foreign = foreignFile(bytes);
  if (foreign) return { problem: `${foreign} ${WANTED}` };
  const { data } = Papa.parse<string[]>(decodedText(bytes));
  if (data.length > MOST) return { problem: `A table may have up to ${MOST.toLocaleString('en-GB')} lines.` };
  return loanFigures(data, on);
}
