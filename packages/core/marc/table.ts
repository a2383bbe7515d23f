import { cellAsItWas } from './formula-cells';
import { inPieces, type Pieces } from './in-pieces';
import type { ControlField, DataField, Field, MarcRecord, Subfield } from './record';
import type { ReadRecord, Repair } from './repair';

/** What stands between the texts that one column has of a record, as where a table is written. */
export const BETWEEN_TEXTS = ' | ';
/** A leader for records without one: a book, catalogued briefly, in Unicode (leader/17 3, leader/18 u). */
const BRIEF_LEADER = '00000nam a22000003u 4500';
/** Positions of 008 that no column gives: no attempt to code (MARC 21, fill character). */
const UNCODED_008 = '|'.repeat(40);

/** One column of a table of records: a field address of the simplest kinds (`001`, `008/35-37`, `245$a`, `245^1`, `LDR/06`). */
interface TableColumn {
  readonly tag: string;
  readonly code?: string;
  readonly indicator?: '1' | '2';
  readonly from?: number;
  readonly to?: number;
}
const COLUMN = /^(?:(LDR|00[1-9A-Z])(?:\/(\d{1,2})(?:-(\d{1,2}))?)?|([0-9A-Z]{3})(?:\$([!-~])|\^([12])))$/;

/** A column by what its head says; null when that is no address that a value can be put at. */
function columnOf(head: string): TableColumn | null {
  const [, control, from, to, tag, code, indicator] = COLUMN.exec(head.trim()) ?? [];
  if (tag !== undefined)
    return tag.startsWith('00')
      ? null
      : { tag, ...(code ? { code } : { indicator: indicator as '1' | '2' }) };
  if (control === undefined) return null;
  if (from === undefined) return { tag: control };
  const range = { from: Number(from), to: Number(to ?? from) };
  const length = control === 'LDR' ? 24 : control === '008' ? 40 : 0;
  return range.from <= range.to && range.to < length ? { tag: control, ...range } : null;
}

/** Characters after which the end of a quotation is not waited for any more. */
const LONGEST_ROW = 1 << 20;
const DELIMITERS = [',', ';', '\t'];

/**
 * The cells of the row at `from` (RFC 4180) and where it ends; `open` when a quotation mark is not closed, and the row
 * goes on to the end of the text. What stands behind a closing mark is kept, and a mark inside a cell is part of it: nothing is lost.
 */
export function rowAt(
  text: string,
  from: number,
  delimiter: string,
): { readonly cells: string[]; readonly end: number; readonly open: boolean } {
  const cells: string[] = [];
  let cell = '';
  let quoted = false;
  let at = from;
  for (; at < text.length; at++) {
    const c = text[at]!;
    if (c === '"' && quoted && text[at + 1] === '"') cell += text[at++];
    else if (c === '"' && (quoted || cell === '')) quoted = !quoted;
    else if (quoted) cell += c;
    else if (c === '\n') break;
    else if (c === delimiter) {
      cells.push(cell);
      cell = '';
    } else cell += c;
  }
  return { cells: [...cells, cell.replace(/\r$/, '')], end: at, open: quoted };
}

interface Head {
  readonly delimiter: string;
  readonly columns: readonly TableColumn[];
}

/** The columns of a table by its first line: all cells are field addresses, with commas, semicolons or tabs between; null for any other. */
export function tableHead(line: string): Head | null {
  for (const delimiter of DELIMITERS) {
    const columns = rowAt(line, 0, delimiter).cells.map(columnOf);
    if (columns.every((c) => c !== null)) return { delimiter, columns };
  }
  return null;
}

/**
 * Reads a table of field addresses (RFC 4180), a record a row, fed in pieces. What a column gives more than once makes
 * as many fields. What the table does not say is left blank: indicators, coded values. Offsets count characters.
 */
export function tableReader(): Pieces<ReadRecord> {
  let head: Head | null = null;
  let row = 0;
  return inPieces((text, offset, last, found) => {
    let at = 0;
    while (at < text.length) {
      const line = text.indexOf('\n', at);
      const delimiter = head?.delimiter ?? ',';
      const whole = rowAt(text, at, delimiter);
      const { open } = whole;
      const cut = open && line >= 0 && (last || whole.end - at > LONGEST_ROW);
      if (whole.end >= text.length && !last && !cut) break;
      const { cells, end } = cut ? rowAt(text.slice(0, line), at, delimiter) : whole;
      const said = text.slice(at, end);
      if (said.trim() !== '') {
        row++;
        if (head) found.push(readRow({ cells, row, offset: offset + at, length: said.length, open }, head));
        else head = tableHead(said.trim()) ?? { delimiter: ',', columns: [] };
      }
      at = Math.min(end + 1, text.length);
    }
    return at;
  });
}

/** A row of a table, counted from 1 with its head. */
interface Row {
  readonly cells: readonly string[];
  readonly row: number;
  readonly offset: number;
  readonly length: number;
  /** A quotation mark in it is not closed. */
  readonly open: boolean;
}

function readRow({ cells, row, offset, length, open }: Row, { columns }: Head): ReadRecord {
  const repairs: Repair[] = [];
  const tell = (code: Repair['code'], message: string, repaired = true) =>
    repairs.push({ code, offset, message: `Row ${row}: ${message}`, repaired });
  if (cells.slice(columns.length).some((c) => c.trim() !== ''))
    tell(
      'table',
      `there are ${cells.length} cells for ${columns.length} columns; those behind were left out.`,
      false,
    );
  if (open) tell('table', 'a quotation mark is not closed; its cell was ended with the row.');
  let leader = BRIEF_LEADER;
  const fields: Field[] = [];
  const done = new Set<string>();
  for (const { tag } of columns) {
    if (done.has(tag)) continue;
    done.add(tag);
    const own = columns.flatMap((column, i) =>
      column.tag === tag ? [{ column, text: cellAsItWas(cells[i] ?? '') }] : [],
    );
    if (tag === 'LDR') leader = written(leader, own, tell);
    else if (tag.startsWith('00')) fields.push(...controlFields(tag, own, tell));
    else fields.push(...dataFieldsOf(tag, own, tell));
  }
  fields.sort((a, b) => (a.tag < b.tag ? -1 : a.tag > b.tag ? 1 : 0));
  if (fields.length === 0) {
    tell('unreadable', 'no column has a text, so there is no record.', false);
    return { record: null, offset, length, repairs };
  }
  const record: MarcRecord = { leader: `${leader.slice(0, 9)}a${leader.slice(10)}`, fields };
  return { record, offset, length, repairs };
}

type Tell = (code: Repair['code'], message: string, repaired?: boolean) => void;
type Own = readonly { readonly column: TableColumn; readonly text: string }[];

/** A fixed text with what the columns put at its positions, cut or filled up with blanks to their width. */
function written(base: string, own: Own, tell: Tell): string {
  let text = base;
  for (const { column, text: put } of own) {
    if (put === '') continue;
    const { from = 0, to = base.length - 1 } = column;
    const width = to - from + 1;
    if (put.length > width)
      tell(
        'table',
        `“${put}” is longer than the ${width} positions of ${column.tag} that it is for; it was cut.`,
        false,
      );
    text = text.slice(0, from) + put.slice(0, width).padEnd(width) + text.slice(to + 1);
  }
  return text;
}

function controlFields(tag: string, own: Own, tell: Tell): ControlField[] {
  if (own.every(({ text }) => text === '')) return [];
  if (own.some(({ column }) => column.from !== undefined))
    return [{ tag, value: written(UNCODED_008, own, tell) }];
  return own.flatMap(({ text }) =>
    text === '' ? [] : text.split(BETWEEN_TEXTS).map((value) => ({ tag, value: nfc(value) })),
  );
}

function dataFieldsOf(tag: string, own: Own, tell: Tell): DataField[] {
  const parts = own.map(({ column, text }) => ({
    column,
    texts: text === '' ? [] : text.split(BETWEEN_TEXTS),
  }));
  const subfields = parts.filter((p) => p.column.code !== undefined && p.texts.length > 0);
  const count = Math.max(0, ...subfields.map((p) => p.texts.length));
  if (subfields.some((p) => p.texts.length !== count))
    tell(
      'table',
      `the columns of ${tag} have different numbers of texts; they were put together in their order.`,
    );
  const spare = parts.some(
    (p) => p.column.indicator && p.texts.some((t, i) => t.length > 1 || (i >= count && t.trim())),
  );
  if (spare)
    tell(
      'table',
      `an indicator of ${tag} has no field, or more than one character; that was left out.`,
      false,
    );
  const indicator = (which: '1' | '2', i: number) =>
    parts.find((p) => p.column.indicator === which)?.texts[i]?.charAt(0) || ' ';
  return Array.from({ length: count }, (_, i) => ({
    tag,
    ind1: indicator('1', i),
    ind2: indicator('2', i),
    subfields: subfields.flatMap((p): Subfield[] =>
      p.texts[i] === undefined || p.texts[i] === '' ? [] : [{ code: p.column.code!, value: nfc(p.texts[i]) }],
    ),
  }));
}

const nfc = (text: string) => text.normalize('NFC');
