import {
  encodeUtf8,
  lineForm,
  MARCXML_END,
  MARCXML_START,
  marcJson,
  marcXmlElement,
  recogniseFormat,
  recordReader,
  writeIso2709,
  type MarcRecord,
  type ReadRecord,
  type RecordReader,
} from '@osier/core/marc';
import { closeSync, createReadStream, openSync, writeSync } from 'node:fs';
import { oneOf, readArguments, UsageError } from './usage';

const FORMATS = ['iso2709', 'marcxml', 'json', 'lines'] as const;
const AT_ONCE = 1 << 20;

const WRITERS: Record<(typeof FORMATS)[number], (r: MarcRecord) => string | Uint8Array> = {
  iso2709: writeIso2709,
  marcxml: marcXmlElement,
  json: (r) => `${marcJson(r)}\n`,
  lines: lineForm,
};

/** `osier convert`: reads records in any format and writes them in another. 0 clean, 2 repaired or lost, 1 nothing readable. */
export async function convert(args: readonly string[]): Promise<number> {
  const { file, options } = readArguments(args, ['to', 'from', 'out', 'report']);
  const to = oneOf('to', options.to, FORMATS);
  const from =
    options.from === undefined ? undefined : oneOf('from', options.from, ['iso2709', 'marcxml', 'json']);
  const out = bufferedOutput(options.out);
  const report = options.report === undefined ? null : openSync(options.report, 'w');
  const write = WRITERS[to];
  let seen = 0;
  let written = 0;
  let troubled = 0;
  const take = (found: readonly ReadRecord[]) => {
    for (const r of found) {
      seen++;
      if (r.repairs.length) {
        troubled++;
        if (report !== null)
          writeSync(
            report,
            r.repairs
              .map(
                ({ code, offset, message, repaired }) =>
                  `${JSON.stringify({ record: seen, offset, code, message, repaired })}\n`,
              )
              .join(''),
          );
      }
      if (!r.record) continue;
      if (written++ === 0 && to === 'marcxml') out.put(MARCXML_START);
      out.put(write(r.record));
    }
  };
  let reader: RecordReader | null = null;
  const source = file === '-' ? process.stdin : createReadStream(file, { highWaterMark: AT_ONCE });
  for await (const chunk of source as AsyncIterable<Buffer>) {
    if (!reader) {
      const found = from ? { format: from } : recogniseFormat(chunk);
      if ('problem' in found) throw new UsageError(found.problem);
      reader = recordReader(found.format);
    }
    take(reader.push(chunk));
  }
  if (!reader) throw new UsageError('The file is empty.');
  take(reader.end());
  if (report !== null) closeSync(report);
  const problem = reader.problem();
  if (written === 0) throw new UsageError(problem ?? 'No record in this file could be read.');
  if (to === 'marcxml') out.put(MARCXML_END);
  out.end();
  if (problem) process.stderr.write(`osier: ${problem}\n`);
  return troubled > 0 || problem ? 2 : 0;
}

/** Encodes into one buffer and writes it in large pieces to a file or standard output. */
function bufferedOutput(path: string | undefined): { put(part: string | Uint8Array): void; end(): void } {
  const descriptor = path === undefined ? 1 : openSync(path, 'w');
  const buffer = Buffer.allocUnsafe(4 * AT_ONCE);
  let used = 0;
  const flush = () => {
    writeAll(descriptor, buffer.subarray(0, used));
    used = 0;
  };
  return {
    put(part) {
      // UTF-8 takes at most three bytes a UTF-16 unit.
      const most = typeof part === 'string' ? part.length * 3 : part.length;
      if (used + most > buffer.length) flush();
      if (most > buffer.length) writeAll(descriptor, typeof part === 'string' ? encodeUtf8(part) : part);
      else if (typeof part === 'string') used += buffer.write(part, used);
      else used += (buffer.set(part, used), part.length);
    },
    end() {
      flush();
      if (path !== undefined) closeSync(descriptor);
    },
  };
}

function writeAll(descriptor: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) {
    try {
      at += writeSync(descriptor, bytes, at);
    } catch (error) {
      // A pipe that is full for the moment.
      if ((error as NodeJS.ErrnoException).code !== 'EAGAIN') throw error;
    }
  }
}
