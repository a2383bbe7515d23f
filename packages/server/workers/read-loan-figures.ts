import { loanFigures, type LoanFigure, type UntakenLine } from '@osier/core/holdings';
import { decodedText } from '@osier/core/text';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { foreignFile } from './foreign-file';

/** A table of loan figures as a thread hands it over: in one text, which is quickly passed on however long it is. */
export type LoanTable =
  | {
      /** A line for each copy; `figureIn` reads one. */
      readonly lines: string;
      readonly untaken: { readonly count: number; readonly first: readonly UntakenLine[] };
      readonly hasDays: boolean;
    }
  | { readonly problem: string };

const MOST = 1_000_000;
/** Lines that could not be taken, of which more is told than their number. */
const TOLD = 5;
const WANTED = 'A table with a column of barcodes and one of loans is expected.';

const lineOf = ({ barcode, loans, lastLoan }: LoanFigure): string =>
  `${loans}\t${lastLoan}\t${barcode.replace(/\s+/g, ' ')}`;

/** The figures of a line. */
export function figureIn(line: string): LoanFigure {
  const [loans = '', lastLoan = '', barcode = ''] = line.split('\t');
  return { barcode, loans: Number(loans), lastLoan };
}

/** Reads a table of how often copies were lent, in any encoding, with commas, semicolons or tabs; `on` is today. */
export function readLoanFigures({ path, on }: { readonly path: string; readonly on: string }): LoanTable {
  const bytes = readFileSync(path);
  const foreign = foreignFile(bytes);
  if (foreign) return { problem: `${foreign} ${WANTED}` };
  const { data } = Papa.parse<string[]>(decodedText(bytes));
  if (data.length > MOST) return { problem: `A table may have up to ${MOST.toLocaleString('en-GB')} lines.` };
  const read = loanFigures(data, on);
  if ('problem' in read) return read;
  const { figures, untaken, hasDays } = read;
  return {
    lines: figures.map(lineOf).join('\n'),
    untaken: { count: untaken.length, first: untaken.slice(0, TOLD) },
    hasDays,
  };
}
