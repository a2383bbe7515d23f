import type { Putter } from './putter';
import { csvRow, readColumns, type Column } from '@osier/core/address';
import type { HouseRules } from '@osier/core/house';
import {
  iso2709Writer,
  JsonFromBytes,
  jsonRoom,
  lineForm,
  marcJson,
  marcXmlElement,
  recordReader,
  type Charset,
  type CleanLayout,
  type FileFormat,
  type MarcRecord,
  type ReadRecord,
  type Repair,
} from '@osier/core/marc';
import { building } from './building';

/** What is done with records; a plain value, so that it can be handed to another thread. */
export type Work =
  | {
      readonly act: 'convert';
      readonly to: 'iso2709' | 'marcxml' | 'json' | 'lines' | 'csv';
      readonly charset: Charset;
      readonly columns: string;
      /** Only what a query in CQL finds is written; absent: all. */
      readonly query?: string;
    }
  | {
      readonly act: 'check';
      readonly as: 'json' | 'text';
      readonly house: HouseRules;
      readonly fix: boolean;
    };

/** What came of a stretch of a file. `record` of a repair counts from 1 within the stretch. */
export interface FinishedWork {
  readonly out: Uint8Array;
  /** Mended records as ISO 2709, of a check with fixes. */
  readonly fixed: Uint8Array;
  readonly seen: number;
  readonly written: number;
  readonly troubled: number;
  readonly repairs: readonly (Repair & { readonly record: number })[];
}

/** Does the work on a file that is fed in pieces; `take` gives what is done so far. */
export interface Worker {
  push(chunk: Uint8Array): void;
  end(): void;
  take(): FinishedWork;
  problem(): string | null;
}

/** What a block becomes is seldom more; findings take less than records. */
const ROOM = { convert: 1 << 21, check: 1 << 18 };

/** `offset` is where the first piece stands in the file, `before` how many records come before it. */
export function worker(
  work: Work,
  { put, rest }: Putter,
  format: FileFormat,
  offset = 0,
  before = 0,
): Worker {
  const room = ROOM[work.act];
  let out = building(room);
  let fixed = building(64);
  let [seen, written, troubled, at] = [0, 0, 0, before];
  let repairs: (Repair & { record: number })[] = [];
  const give = (read: ReadRecord) => {
    seen++;
    at++;
    if (read.repairs.length) {
      troubled++;
      for (const r of read.repairs) repairs.push({ ...r, record: seen });
    }
    if (!read.record) return;
    if (put(read.record, at, out, fixed) !== false) written++;
  };
  const json = new JsonFromBytes();
  const straight = (layout: CleanLayout) => {
    const room = jsonRoom(layout.end - layout.start);
    if (!out.fill(room, (buffer, o) => json.write(layout, buffer, o))) return false;
    seen++;
    at++;
    written++;
    return true;
  };
  const reader = recordReader(format, {
    offset,
    give,
    ...(work.act === 'convert' && work.to === 'json' && work.query === undefined && { take: straight }),
  });
  return {
    push: (chunk) => reader.push(chunk).forEach(give),
    end() {
      reader.end().forEach(give);
      for (const r of reader.leftover()) repairs.push({ ...r, record: Math.max(seen, 1) });
      if (reader.leftover().length) troubled++;
    },
    take() {
      rest?.(out, fixed);
      const done = { out: out.bytes(), fixed: fixed.bytes(), seen, written, troubled, repairs };
      [out, fixed, seen, written, troubled, repairs] = [building(room), building(64), 0, 0, 0, []];
      return done;
    },
    problem: reader.problem,
  };
}

/** What is written of a record. The checks are loaded when they are asked for: they bring the formats with them. */
export async function putterFor(work: Work): Promise<Putter> {
  if (work.act === 'check') return (await import('./check-lines')).checkLines(work);
  const write = writerOf(work.to, work.charset, readColumns(work.columns) as Column[]);
  if (work.query === undefined) return { put: (record, _, out) => void out.put(write(record)) };
  const finds = (await import('./finding')).finder(work.query);
  return {
    put(record, _, out) {
      if (!finds(record)) return false;
      out.put(write(record));
      return true;
    },
  };
}

function writerOf(
  to: string,
  charset: Charset,
  columns: readonly Column[],
): (r: MarcRecord) => string | Uint8Array {
  if (to === 'iso2709') return iso2709Writer(charset);
  if (to === 'marcxml') return marcXmlElement;
  if (to === 'json') return (r) => `${marcJson(r)}\n`;
  return to === 'lines' ? lineForm : (r) => csvRow(r, columns);
}
