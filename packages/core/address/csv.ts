import { BETWEEN_TEXTS, harmlessCell, type MarcRecord } from '../marc';
import { isAddress, type Address } from './address';
import { textsAt } from './find';
import { parseAddress } from './parse';

/** One column of a table of records: an address as it was written, and what it says. */
export interface Column {
  readonly text: string;
  readonly address: Address;
}

/** What a list of records shows when nothing is asked for. */
export const USUAL_COLUMNS =
  '001,020$a,022$a,082$a,100$a,110$a,245$a,245$b,245$c,250$a,260$c,264$b,264$c,300$a,490$a,650$a,856$u';

/** Reads addresses with commas between them; one that is none gives a sentence. */
export function readColumns(text: string): Column[] | string {
  const columns: Column[] = [];
  for (const part of text.split(/,(?![^{]*\})/)) {
    const address = parseAddress(part.trim());
    if (!isAddress(address))
      return `“${part.trim()}” is not a field address (as 245$a or 008/35-37): ${address.problem}`;
    columns.push({ text: part.trim(), address });
  }
  return columns;
}

/** The first line of a table (RFC 4180). */
export const csvHead = (columns: readonly Column[]): string => csvLine(columns.map((c) => c.text));

/** One record as a line; what an address finds more than once is joined by ` | `. */
export const csvRow = (record: MarcRecord, columns: readonly Column[]): string =>
  csvLine(
    columns.map(({ address }) =>
      textsAt(record, address)
        .filter((text) => text !== '')
        .join(BETWEEN_TEXTS),
    ),
  );

/** Cells as one line of a table (RFC 4180); none of them is run as a formula by a spreadsheet. */
export const csvLine = (cells: readonly string[]) =>
  `${cells.map((c) => cell(harmlessCell(c))).join(',')}\r\n`;
const cell = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
