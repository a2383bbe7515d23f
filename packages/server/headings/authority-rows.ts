import { recogniseFormat, recordReader, withLeftover, type MarcRecord, type Repair } from '@osier/core/marc';
import { createReadStream } from 'node:fs';
import { join } from 'node:path';

/** Where a file of authority records is kept, by its digest. */
export const authorityPath = (data: string, sha256: string): string => join(data, 'deliveries', sha256);

/** A record of the file. */
export interface FileRow {
  readonly seq: number;
  readonly marc: MarcRecord | null;
  readonly repairs: readonly Repair[];
}

/** Bytes that are read at once: little enough that others are served in between. */
const AT_ONCE = 1 << 16;

/** The records of a file in their order, some at a time. */
export async function* fileRows(path: string): AsyncGenerator<FileRow[]> {
  let seq = 0;
  let reader: ReturnType<typeof withLeftover> | null = null;
  const rows = (found: ReturnType<ReturnType<typeof withLeftover>['push']>): FileRow[] =>
    found.map((r) => ({ seq: ++seq, marc: r.record, repairs: r.repairs }));
  const stream: AsyncIterable<unknown> = createReadStream(path, { highWaterMark: AT_ONCE });
  for await (const chunk of stream) {
    if (!(chunk instanceof Uint8Array)) continue;
    if (!reader) {
      const recognised = recogniseFormat(chunk);
      if ('problem' in recognised) return;
      reader = withLeftover(recordReader(recognised.format));
    }
    yield rows(reader.push(chunk));
  }
  if (reader) yield rows(reader.end());
}

/** The rows of a file behind a place, so many at a time; asked for the same place again, they are the same. */
export function rowsBehind(path: string, atMost: number): (after: number) => Promise<readonly FileRow[]> {
  const rows = fileRows(path);
  let held: FileRow[] = [];
  let isDone = false;
  return async (after) => {
    held = held.filter((r) => r.seq > after);
    while (held.length < atMost && !isDone) {
      const next = await rows.next();
      if (next.done) isDone = true;
      else held.push(...next.value.filter((r) => r.seq > after));
    }
    return held.slice(0, atMost);
  };
}
