import { composed, decodeUtf8 } from '../charset/utf8';
import type { Field, MarcRecord } from '../record';
import type { ReadRecord, Repair } from '../repair';
import { decoderFor, type Charset } from './decode';
import { FIELD_END, FIELD_END_CHAR, LEADER_LENGTH, RECORD_END } from './delimiters';
import { readDirectory } from './directory';
import { readField } from './field';
import { recordExtent } from './extent';

export interface Iso2709Options {
  /** Read every record in this encoding, whatever its leader says. */
  readonly charset?: Charset;
}

/** A reader that is fed chunks of a file of any size and gives the records as they are complete. */
export interface Iso2709Reader {
  push(chunk: Uint8Array): ReadRecord[];
  end(): ReadRecord[];
}

/** Reads ISO 2709 as a stream. Never throws: damage is mended where its meaning is known, and told as repairs. */
export function iso2709Reader(options: Iso2709Options = {}): Iso2709Reader {
  let rest: Uint8Array = new Uint8Array(0);
  let offset = 0;
  let atStart = true;
  const take = (last: boolean): ReadRecord[] => {
    const found: ReadRecord[] = [];
    let at = 0;
    for (;;) {
      const junk = skipJunk(rest, at, atStart);
      at = junk.next;
      if (at >= rest.length) break;
      if (rest.length - at < LEADER_LENGTH && !last) break;
      atStart = false;
      const extent = recordExtent(rest, at, last);
      if (!extent) break;
      const place = offset + at;
      const before: Repair[] = junk.repairs.map((r) => ({ ...r, offset: offset + r.offset }));
      before.push(...extent.repairs.map((r) => ({ ...r, offset: place })));
      found.push(readRecord(rest.subarray(at, extent.end), place, before, options));
      at = extent.end;
    }
    offset += at;
    rest = rest.subarray(at);
    return found;
  };
  return {
    push(chunk) {
      if (rest.length === 0) {
        rest = chunk;
      } else {
        const joined = new Uint8Array(rest.length + chunk.length);
        joined.set(rest);
        joined.set(chunk, rest.length);
        rest = joined;
      }
      return take(false);
    },
    end: () => take(true),
  };
}

/** Reads all records of a file in memory. */
export function readIso2709(bytes: Uint8Array, options: Iso2709Options = {}): ReadRecord[] {
  const reader = iso2709Reader(options);
  return [...reader.push(bytes), ...reader.end()];
}

function skipJunk(bytes: Uint8Array, from: number, atStart: boolean): { next: number; repairs: Repair[] } {
  let at = from;
  const repairs: Repair[] = [];
  if (atStart && bytes[at] === 0xef && bytes[at + 1] === 0xbb && bytes[at + 2] === 0xbf) {
    repairs.push({
      code: 'byte-order-mark',
      offset: at,
      message: 'A byte order mark was left out.',
      repaired: true,
    });
    at += 3;
  }
  const start = at;
  while (at < bytes.length && isJunk(bytes[at]!)) at++;
  if (at > start && at < bytes.length)
    repairs.push({
      code: 'junk-between',
      offset: start,
      repaired: true,
      message: `${at - start} byte${at - start === 1 ? '' : 's'} between records were left out.`,
    });
  return { next: at, repairs };
}

/** Line ends, blanks, NULs, end-of-file marks and doubled record terminators between records. */
const isJunk = (b: number) =>
  b === 0x0a || b === 0x0d || b === 0x20 || b === 0 || b === 0x1a || b === RECORD_END || b === 9;

function readRecord(
  bytes: Uint8Array,
  offset: number,
  before: Repair[],
  options: Iso2709Options,
): ReadRecord {
  const repairs = before;
  const note = (code: Repair['code'], message: string, at = 0, repaired = true) =>
    repairs.push({ code, offset: offset + at, message, repaired });
  const length = bytes.length;
  let dataEnd = length;
  while (dataEnd > 0 && bytes[dataEnd - 1] === RECORD_END) dataEnd--;
  if (dataEnd < LEADER_LENGTH + 1) {
    note('unreadable', `${length} bytes are too few for a record.`, 0, false);
    return { record: null, offset, length, repairs };
  }
  let leader = decodeUtf8(bytes.subarray(0, LEADER_LENGTH)) ?? '';
  if (leader.length !== LEADER_LENGTH || /[^ -~]/.test(leader)) {
    note('leader', 'The leader had characters that are not ASCII; they became blanks.');
    leader = String.fromCharCode(...bytes.subarray(0, LEADER_LENGTH)).replace(/[^ -~]/g, ' ');
  }
  const directory = readDirectory(bytes, dataEnd);
  for (const r of directory.repairs) repairs.push({ ...r, offset });
  if (directory.slots.length === 0) {
    note('unreadable', 'The directory names no field.', LEADER_LENGTH, false);
    return { record: null, offset, length, repairs };
  }
  const claimed: Charset = leader[9] === 'a' ? 'utf8' : 'marc8';
  if (claimed === 'marc8' || options.charset === 'marc8')
    leader = `${leader.slice(0, 9)}a${leader.slice(10)}`;
  const fields =
    fastFields(bytes, directory, dataEnd, claimed, options, note) ??
    slotFields(bytes, directory, claimed, options, note);
  return { record: { leader, fields }, offset, length, repairs };
}

type Note = (code: Repair['code'], message: string, at?: number) => void;
type Directory = ReturnType<typeof readDirectory>;

/** The usual case: fields follow each other in directory order, so that the text is decoded once and cut. */
function fastFields(
  bytes: Uint8Array,
  directory: Directory,
  dataEnd: number,
  claimed: Charset,
  options: Iso2709Options,
  note: Note,
): Field[] | null {
  if (!directory.contiguous) return null;
  const part = bytes.subarray(directory.base, dataEnd);
  const text = decodeUtf8(part);
  if (text === null) return null;
  const plain = text.length === part.length && !text.includes('\u001b') && !text.includes('&#x');
  if (!plain && (options.charset ?? claimed) === 'marc8') return null;
  if (text.includes('\0')) return null;
  const pieces = (plain ? text : composed(text)).split(FIELD_END_CHAR);
  const { slots } = directory;
  if (pieces.length !== slots.length + 1) return null;
  const fields = new Array<Field>(slots.length);
  for (let i = 0; i < slots.length; i++) {
    const slot = slots[i]!;
    fields[i] = readField(slot.tag, pieces[i]!, (code, message) => note(code, message, slot.start));
  }
  return fields;
}

function slotFields(
  bytes: Uint8Array,
  directory: Directory,
  claimed: Charset,
  options: Iso2709Options,
  note: Note,
): Field[] {
  const decode = decoderFor(bytes, claimed, options.charset, note);
  return directory.slots.map((slot) => {
    const end = bytes[slot.end - 1] === FIELD_END ? slot.end - 1 : slot.end;
    let text = decode(slot.start, end);
    if (text.includes('\0')) {
      note('nul-bytes', `Field ${slot.tag} had NUL bytes; they were left out.`, slot.start);
      text = text.replaceAll('\0', '');
    }
    return readField(slot.tag, text, (code, message) => note(code, message, slot.start));
  });
}

/** A record is read whole or not at all; this is what a caller that wants only the values keeps. */
export const readableRecords = (read: readonly ReadRecord[]): MarcRecord[] =>
  read.flatMap((r) => (r.record ? [r.record] : []));
