import { isControl, values, type MarcRecord } from './record';

/** One column of a table of records: a tag, and subfield codes for a data field. */
export interface Column {
  readonly tag: string;
  readonly codes: string;
}

/** What a list of records shows when nothing is asked for. */
export const USUAL_COLUMNS =
  '001,020a,022a,082a,100a,110a,245ab,245c,250a,260c,264b,264c,300a,490av,650a,856u';

/** Reads `001,245ab,650a`; a column that is none gives a sentence. */
export function readColumns(text: string): Column[] | string {
  const columns: Column[] = [];
  for (const part of text.split(',')) {
    const found = /^\s*([0-9A-Za-z]{3})\$?([0-9a-z$]*)\s*$/.exec(part);
    if (!found) return `“${part.trim()}” is no column: a tag and subfield codes, as in 245ab.`;
    columns.push({ tag: found[1]!, codes: found[2]!.replaceAll('$', '') });
  }
  return columns;
}

/** The first line of a table (RFC 4180). */
export const csvHead = (columns: readonly Column[]): string => csvLine(columns.map((c) => c.tag + c.codes));

/** One record as a line: subfields of a field joined by a blank, repeated fields by ` | `. */
export const csvRow = (record: MarcRecord, columns: readonly Column[]): string =>
  csvLine(
    columns.map(({ tag, codes }) =>
      record.fields
        .filter((f) => f.tag === tag)
        .map((f) =>
          isControl(f) ? f.value : (codes ? values(f, codes) : f.subfields.map((s) => s.value)).join(' '),
        )
        .filter((text) => text !== '')
        .join(' | '),
    ),
  );

const csvLine = (cells: readonly string[]) => `${cells.map(cell).join(',')}\r\n`;
/** A cell that a spreadsheet would take for a formula gets a blank before it. */
const cell = (text: string) => {
  const safe = /^[=+@-]/.test(text) && !/^[-+]?\d+([.,]\d+)?$/.test(text) ? ` ${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
};
