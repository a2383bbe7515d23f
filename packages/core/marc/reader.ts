import { iso2709Reader, type Iso2709Options } from './iso2709';
import { readMarcJson } from './json';
import { jsonSplitter } from './json-splitter';
import type { FileFormat } from './recognise';
import type { ReadRecord, Repair } from './repair';
import { utf8Stream, type Utf8Stream } from './charset/utf8-stream';
import { withoutDelimiters } from './strays';
import { readOnceMore, twiceEncodedRepair } from './twice-encoded';
import { linesReader } from './lines';
import { tableReader } from './table';
import { marcXmlReader } from './xml';

/** One way to read records from a stream of bytes, whatever the format. */
export interface RecordReader {
  push(chunk: Uint8Array): ReadRecord[];
  end(): ReadRecord[];
  /** What ended the reading early, or null. */
  problem(): string | null;
  /** After the end: repairs behind the last record. */
  leftover(): readonly Repair[];
}

/** A reader for a format; `options` are for ISO 2709, the others are Unicode by their nature. */
export function recordReader(format: FileFormat, options: Iso2709Options = {}): RecordReader {
  if (format === 'iso2709') return { ...iso2709Reader(options), problem: () => null };
  const inner = INNER[format]();
  return {
    ...inner,
    push: (chunk) => inner.push(chunk).map(tidied),
    end: () => inner.end().map(tidied),
    leftover: inner.leftover,
  };
}

/** What ISO 2709 cannot carry is taken out, and text encoded twice read once more; both told. */
function tidied(read: ReadRecord): ReadRecord {
  if (!read.record) return read;
  const repairs: Repair[] = [...read.repairs];
  let record = withoutDelimiters(read.record, read.offset, repairs);
  const once = readOnceMore(record);
  if (once) {
    record = once;
    repairs.push(twiceEncodedRepair(read.offset));
  }
  return record === read.record && repairs.length === read.repairs.length
    ? read
    : { ...read, record, repairs };
}

type Inner = RecordReader;
const INNER: Record<Exclude<FileFormat, 'iso2709'>, () => Inner> = {
  marcxml: xmlReader,
  json: jsonReader,
  lines: () => textReader(linesReader),
  csv: () => textReader(tableReader),
};

function xmlReader(): Inner {
  let text: Utf8Stream | null = null;
  let head: number[] = [];
  const xml = marcXmlReader();
  const tell = (read: ReadRecord) => toldBadBytes(read, text);
  const begin = () => {
    const bytes = Uint8Array.from(head);
    head = [];
    text = textStream(xmlEncoding(bytes));
    return xml.push(text.push(bytes));
  };
  return {
    push(chunk) {
      if (text) return xml.push(text.push(chunk)).map(tell);
      head.push(...chunk.subarray(0, DECLARATION));
      if (head.length < DECLARATION && chunk.length < DECLARATION) return [];
      const rest = chunk.subarray(Math.min(chunk.length, DECLARATION));
      return [...begin(), ...xml.push(text!.push(rest))].map(tell);
    },
    end() {
      const first = text ? [] : begin();
      return [...first, ...xml.push(text!.end()), ...xml.end()].map(tell);
    },
    problem: xml.problem,
    leftover: xml.leftover,
  };
}

/** Text of bytes in an encoding; only UTF-8 can have bytes that are none of it. */
function textStream(encoding: string): Utf8Stream {
  if (encoding === 'utf-8') return utf8Stream();
  const decoder = new TextDecoder(encoding);
  return {
    push: (chunk) => decoder.decode(chunk, { stream: true }),
    end: () => decoder.decode(),
    badBetween: () => 0,
  };
}

/** A record with a word on the bytes in it that were no UTF-8. */
function toldBadBytes(read: ReadRecord, text: Utf8Stream | null): ReadRecord {
  const count = text?.badBetween(read.offset, read.offset + read.length) ?? 0;
  if (count === 0) return read;
  const message = `${count === 1 ? 'One byte is' : `${count} bytes are`} not UTF-8 and read as Windows-1252.`;
  return {
    ...read,
    repairs: [...read.repairs, { code: 'bad-bytes', offset: read.offset, message, repaired: true }],
  };
}

/** Bytes within which an XML declaration ends. */
const DECLARATION = 200;

/** The encoding of an XML file: its byte order mark, else what its declaration says, else UTF-8 (XML 1.0, appendix F). */
function xmlEncoding(head: Uint8Array): string {
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le';
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be';
  const start = String.fromCharCode(...head.subarray(0, DECLARATION));
  const said = /<\?xml[^>]*?encoding\s*=\s*["']([\w.-]+)["']/i.exec(start)?.[1];
  try {
    return new TextDecoder(said ?? 'utf-8').encoding;
  } catch {
    return 'utf-8';
  }
}

/** MARC-in-JSON: an object a line, objects one after another, or one array of them. */
function jsonReader(): Inner {
  const stream = utf8Stream();
  const splitter = jsonSplitter();
  let [seen, good] = [0, 0];
  const read = (texts: ReturnType<typeof splitter.push>): ReadRecord[] =>
    texts.map(({ text, offset, value }) => {
      seen++;
      const repairs: Repair[] = [];
      const record = readMarcJson(value, (code, message, repaired = true) =>
        repairs.push({ code, offset, message, repaired }),
      );
      if (!record) return unreadable(text, offset);
      good++;
      return toldBadBytes({ record, offset, length: text.length, repairs }, stream);
    });
  return {
    push: (chunk) => read(splitter.push(stream.push(chunk))),
    end: () => read([...splitter.push(stream.end()), ...splitter.end()]),
    problem: () => (seen > 0 && good === 0 ? 'No part of this file is a MARC-in-JSON record.' : null),
    leftover: () => [],
  };
}

/** Records as lines, or as the rows of a table. */
function textReader(read: typeof linesReader | typeof tableReader): Inner {
  const stream = utf8Stream();
  const lines = read();
  const tell = (read: ReadRecord) => toldBadBytes(read, stream);
  return {
    push: (chunk) => lines.push(stream.push(chunk)).map(tell),
    end: () => [...lines.push(stream.end()), ...lines.end()].map(tell),
    problem: () => null,
    leftover: () => [],
  };
}

const unreadable = (text: string, offset: number): ReadRecord => ({
  record: null,
  offset,
  length: text.length,
  repairs: [{ code: 'unreadable', offset, message: 'This is not a MARC-in-JSON record.', repaired: false }],
});
