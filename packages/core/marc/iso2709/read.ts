import type { Field, MarcRecord } from '../record';
import type { ReadRecord, Repair } from '../repair';
import { readOnceMore, twiceEncodedRepair } from '../twice-encoded';
import { marc8Tables, type Marc8Tables } from '../charset/marc8-tables';
import { newLayout, readLayout, type CleanLayout } from './clean-layout';
import { cleanRecord } from './clean-record';
import { fieldCutter, type CutFields, type FieldCutter } from './cut-fields';
import { decoderFor, type Charset } from './decode';
import { digits, FIELD_END, LEADER_LENGTH, RECORD_END } from './delimiters';
import { readDirectory, type Directory } from './directory';
import { readField, withoutStrays } from './field';
import { plainEnd, recordExtent } from './extent';
import { skipJunk, TERMINATOR_AGAIN } from './junk';
import { readLeader, saysLengths, withLengths } from './leader';

/** How a file is read. */
export interface Iso2709Options {
  /** Read every record in this encoding, whatever its leader says. */
  readonly charset?: Charset;
  /** Where the first byte stands in the file, when reading begins inside it. */
  readonly offset?: number;
  /**
   * Offered every record whose leader and directory are clean, instead of reading it; true takes it. For those who can do with
   * the bytes of its fields, and see for themselves that these are clean.
   */
  readonly take?: (layout: CleanLayout) => boolean;
  /** Is given each record that was read, in turn with `take`; `push` and `end` then give none. */
  readonly give?: (read: ReadRecord) => void;
  /** Only find the records: what is given has no record and no repairs but those of its extent. */
  readonly unread?: boolean;
}

/** A reader that is fed chunks of a file of any size and gives the records as they are complete. */
export interface Iso2709Reader {
  push(chunk: Uint8Array): ReadRecord[];
  end(): ReadRecord[];
  /** After the end: what stood behind the last record and is none. */
  leftover(): readonly Repair[];
}

/** Reads ISO 2709 as a stream. Never throws: damage is mended where its meaning is known, and told as repairs. */
export function iso2709Reader(options: Iso2709Options = {}): Iso2709Reader {
  let rest: Uint8Array = new Uint8Array(0);
  let offset = options.offset ?? 0;
  let atStart = offset === 0;
  let behind: Repair[] = [];
  const session: Session = { options, cut: fieldCutter(), marc8: marc8Tables() };
  const layout = newLayout();
  const takeClean = (bytes: Uint8Array, from: number, give: (read: ReadRecord) => void): number => {
    for (let at = from; ;) {
      const end = at + digits(bytes, at, 5);
      if (end <= at + LEADER_LENGTH || end > bytes.length || !readLayout(layout, bytes, at, end)) return at;
      if (options.take) {
        if (!options.take(layout)) return at;
      } else {
        const record = options.charset ? null : cleanRecord(layout, session.cut);
        if (!record) return at;
        give({ record, offset: offset + at, length: end - at, repairs: NO_REPAIRS });
      }
      at = end;
    }
  };
  const readable = (bytes: Uint8Array, from: number, to: number, repairs: Repair[]): ReadRecord =>
    options.unread
      ? { record: null, offset: offset + from, length: to - from, repairs }
      : readRecord(bytes.subarray(from, to), offset + from, repairs, session);
  const readAll = (last: boolean): ReadRecord[] => {
    const found: ReadRecord[] = [];
    const give = options.give ?? ((read: ReadRecord) => void found.push(read));
    let at = 0;
    for (;;) {
      const clean = options.unread ? at : takeClean(rest, at, give);
      if (clean > at) atStart = false;
      at = clean;
      const plain = plainEnd(rest, at);
      if (plain > 0) {
        give(readable(rest, at, plain, []));
        at = plain;
        atStart = false;
        continue;
      }
      const junk = skipJunk(rest, at, atStart, last);
      const before = junk.repairs.map((r) => ({ ...r, offset: offset + r.offset }));
      if (junk.next >= rest.length) {
        if (last) {
          behind = before;
          at = rest.length;
        }
        break;
      }
      if (junk.unsure || (rest.length - junk.next < LEADER_LENGTH && !last)) break;
      const extent = recordExtent(rest, junk.next, last);
      if (!extent) break;
      at = junk.next;
      atStart = false;
      const place = offset + at;
      before.push(...extent.repairs.map((r) => ({ ...r, offset: place })));
      give(readable(rest, at, extent.end, before));
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
      return readAll(false);
    },
    end: () => readAll(true),
    leftover: () => behind,
  };
}

/** What reading a file keeps from record to record. */
interface Session {
  readonly options: Iso2709Options;
  readonly cut: FieldCutter;
  readonly marc8: Marc8Tables;
}
const NO_REPAIRS: readonly Repair[] = [];

/** Reads all records of a file in memory. */
export function readIso2709(bytes: Uint8Array, options: Iso2709Options = {}): ReadRecord[] {
  const reader = iso2709Reader(options);
  return [...reader.push(bytes), ...reader.end()];
}

function readRecord(
  bytes: Uint8Array,
  offset: number,
  repairs: Repair[],
  { options, cut, marc8 }: Session,
): ReadRecord {
  const note = (code: Repair['code'], message: string, at = 0) =>
    repairs.push({ code, offset: offset + at, message, repaired: true });
  const { length } = bytes;
  const unreadable = (message: string): ReadRecord => {
    repairs.push({ code: 'unreadable', offset, message, repaired: false, bytes: bytes.slice() });
    return { record: null, offset, length, repairs };
  };
  let dataEnd = length;
  while (dataEnd > 0 && bytes[dataEnd - 1] === RECORD_END) dataEnd--;
  if (length - dataEnd > 1) note('record-terminator', TERMINATOR_AGAIN, dataEnd);
  if (dataEnd < LEADER_LENGTH + 1) return unreadable(`${length} bytes are too few for a record.`);
  const directory = readDirectory(bytes, dataEnd);
  if (directory.slots.length === 0 && directory.repairs.length > 0)
    return unreadable('The directory names no field that could be found.');
  let leader = readLeader(bytes, directory.leaderLength, note);
  for (const r of directory.repairs) repairs.push({ ...r, offset });
  if (repairs.length && !saysLengths(bytes, length, directory.base))
    leader = withLengths(leader, length, directory.base);
  const claimed: Charset = leader[9] === 'a' ? 'utf8' : 'marc8';
  leader = `${leader.slice(0, 9)}a${leader.slice(10)}`;
  const broken = repairs.some((r) => r.code === 'truncated');
  const fast = contiguousFields(bytes, directory, dataEnd, options.charset ?? claimed, cut, note);
  const fields =
    fast?.fields ??
    slotFields(
      bytes,
      broken ? withoutHalfCharacter(bytes, directory) : directory,
      claimed,
      options,
      marc8,
      note,
    );
  const record: MarcRecord = { leader, fields };
  const once = options.charset === undefined && !fast?.ascii ? readOnceMore(record) : null;
  if (once) repairs.push(twiceEncodedRepair(offset));
  return { record: once ?? record, offset, length, repairs };
}

type Note = (code: Repair['code'], message: string, at?: number) => void;

/** Fields that follow each other in directory order are cut from their text at once. */
function contiguousFields(
  bytes: Uint8Array,
  { slots, base, contiguous }: Directory,
  dataEnd: number,
  charset: Charset,
  cut: FieldCutter,
  note: Note,
): CutFields | null {
  if (!contiguous) return null;
  const run = {
    ...{ bytes, from: base, to: dataEnd, count: slots.length },
    tags: slots.map((s) => s.tag),
    ends: slots.map((s) => s.end - 1),
  };
  return cut(run, charset, note);
}

function slotFields(
  bytes: Uint8Array,
  directory: Directory,
  claimed: Charset,
  options: Iso2709Options,
  marc8: Marc8Tables,
  note: Note,
): Field[] {
  const stretches = directory.slots.map(({ tag, start, end }) => ({
    tag,
    start,
    end: bytes[end - 1] === FIELD_END ? end - 1 : end,
  }));
  const decode = decoderFor(bytes, stretches, { claimed, forced: options.charset, marc8 }, note);
  return stretches.map(({ tag, start, end }) => {
    const noteHere = (code: Repair['code'], message: string) => note(code, message, start);
    return readField(tag, withoutStrays(tag, decode(start, end), noteHere), noteHere);
  });
}

/** A record that breaks off may do so within a character; its bytes are no character of another encoding. */
function withoutHalfCharacter(bytes: Uint8Array, directory: Directory): Directory {
  const last = directory.slots.reduce((a, s) => Math.max(a, s.end), 0);
  let at = last;
  while (at > last - 3 && (bytes[at - 1]! & 0xc0) === 0x80) at--;
  const lead = bytes[at - 1]!;
  const wanted = lead >= 0xf0 ? 4 : lead >= 0xe0 ? 3 : lead >= 0xc0 ? 2 : 1;
  if (last - at + 1 >= wanted) return directory;
  return {
    ...directory,
    slots: directory.slots.map((s) => (s.end === last ? { ...s, end: Math.max(s.start, at - 1) } : s)),
  };
}

/** A record is read whole or not at all; this is what a caller that wants only the values keeps. */
export const readableRecords = (read: readonly ReadRecord[]): MarcRecord[] =>
  read.flatMap((r) => (r.record ? [r.record] : []));
