import { iso2709Reader, type Charset } from './iso2709';
import { readMarcJson } from './json';
import type { FileFormat } from './recognise';
import type { ReadRecord } from './repair';
import { marcXmlReader } from './xml';

/** One way to read records from a stream of bytes, whatever the format. */
export interface RecordReader {
  push(chunk: Uint8Array): ReadRecord[];
  end(): ReadRecord[];
  /** What ended the reading early, or null. */
  problem(): string | null;
}

export function recordReader(format: FileFormat, charset?: Charset): RecordReader {
  if (format === 'iso2709') return { ...iso2709Reader({ charset }), problem: () => null };
  const decoder = new TextDecoder('utf-8');
  if (format === 'marcxml') {
    const xml = marcXmlReader();
    return {
      push: (chunk) => xml.push(decoder.decode(chunk, { stream: true })),
      end: () => [...xml.push(decoder.decode()), ...xml.end()],
      problem: xml.problem,
    };
  }
  return jsonReader(decoder);
}

/** Newline-delimited MARC-in-JSON, or one array or object over several lines. */
function jsonReader(decoder: TextDecoder): RecordReader {
  let rest = '';
  let offset = 0;
  let problem: string | null = null;
  const readOne = (text: string, at: number): ReadRecord[] => {
    const all = parsed(text);
    if (all === undefined) return [unreadable(text, at)];
    return (Array.isArray(all) ? all : [all]).map((value) => {
      const record = readMarcJson(value);
      return record ? { record, offset: at, length: text.length, repairs: [] } : unreadable(text, at);
    });
  };
  const take = (last: boolean): ReadRecord[] => {
    const found: ReadRecord[] = [];
    if (!last && !/^\s*\{.*\}\s*\n/.test(rest)) return found;
    const whole = last ? parsed(rest) : undefined;
    if (whole !== undefined) {
      found.push(...readOne(rest, offset));
      rest = '';
      return found;
    }
    const lines = rest.split('\n');
    rest = last ? '' : lines.pop()!;
    for (const line of lines) {
      if (line.trim()) found.push(...readOne(line, offset));
      offset += line.length + 1;
    }
    if (last && found.length > 0 && found.every((r) => r.record === null))
      problem = 'No line of this file is a MARC-in-JSON record.';
    return found;
  };
  return {
    push(chunk) {
      rest += decoder.decode(chunk, { stream: true });
      return take(false);
    },
    end() {
      rest += decoder.decode();
      return rest.trim() ? take(true) : [];
    },
    problem: () => problem,
  };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

const unreadable = (text: string, offset: number): ReadRecord => ({
  record: null,
  offset,
  length: text.length,
  repairs: [{ code: 'unreadable', offset, message: 'This is not a MARC-in-JSON record.', repaired: false }],
});
