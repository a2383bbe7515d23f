import { recogniseFormat, type FileFormat } from '@osier/core/marc';
import { createReadStream, statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { countRecords, cutPoint } from './blocks';
import { pool } from './pool';
import { UsageError } from './usage';
import { putterFor, worker, type FinishedWork, type Work, type Worker } from './work';

const AT_ONCE = 1 << 20;
const LARGE = 20_000_000;
/** Bytes from which the work is shared among threads; checking takes longer than starting one. */
const WORTH_THREADS = { convert: 8_000_000, check: 1_000_000 };

/**
 * Does the work on a file, or on standard input for `-`, and hands over what is done in the order of the file; memory
 * stays flat. A large ISO 2709 file is cut between records and converted in several threads. Gives what ended the
 * reading early, or null.
 */
export async function workOn(
  file: string,
  from: FileFormat | undefined,
  work: Work,
  done: (result: FinishedWork) => void,
): Promise<string | null> {
  const size = file === '-' ? 0 : statSync(file).size;
  const progress = progressLine(size);
  const source = file === '-' ? process.stdin : createReadStream(file, { highWaterMark: AT_ONCE });
  let feed: Feed | null = null;
  for await (const chunk of source as AsyncIterable<Buffer>) {
    if (!feed) {
      const found = from ? { format: from } : recogniseFormat(chunk);
      if ('problem' in found) throw new UsageError(found.problem);
      const threads =
        found.format === 'iso2709' && size > WORTH_THREADS[work.act] && availableParallelism() > 1;
      feed = threads ? inThreads(work, done) : here(worker(work, await putterFor(work), found.format), done);
    }
    await feed.push(chunk);
    progress.read(chunk.length);
  }
  progress.end();
  if (!feed) throw new UsageError('The file is empty.');
  return feed.end();
}

interface Feed {
  push(chunk: Uint8Array): Promise<void> | void;
  end(): Promise<string | null> | string | null;
}

function here(w: Worker, done: (result: FinishedWork) => void): Feed {
  return {
    push(chunk) {
      w.push(chunk);
      done(w.take());
    },
    end() {
      w.end();
      done(w.take());
      return w.problem();
    },
  };
}

function inThreads(work: Work, done: (result: FinishedWork) => void): Feed {
  const threads = pool(process.argv[1]!, { work, format: 'iso2709' }, done);
  let rest: Uint8Array[] = [];
  let offset = 0;
  let before = 0;
  const give = async (parts: readonly Uint8Array[]) => {
    const block = joined(parts);
    const [at, size, records] = [
      offset,
      block.length,
      work.act === 'check' ? countRecords(block, offset) : 0,
    ];
    await threads.add({ block, offset: at, before });
    offset += size;
    before += records;
  };
  return {
    async push(chunk) {
      const cut = cutPoint(chunk);
      if (cut > 0) {
        await give([...rest, chunk.subarray(0, cut)]);
        rest = [];
      }
      rest.push(chunk.subarray(cut));
    },
    async end() {
      await give(rest);
      await threads.end();
      return null;
    },
  };
}

/** One stretch of memory of its own, so that it can be handed to a thread. */
function joined(parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return all;
}

/** How far a large file is read, on standard error when that is a terminal. */
function progressLine(size: number): { read(bytes: number): void; end(): void } {
  let done = 0;
  let shown = 0;
  if (!process.stderr.isTTY || (size > 0 && size < LARGE))
    return { read: () => undefined, end: () => undefined };
  return {
    read(bytes) {
      done += bytes;
      if (done - shown < 4_000_000) return;
      shown = done;
      const part = size
        ? `${Math.floor((100 * done) / size)} % of ${Math.round(size / 1e6)} MB`
        : `${Math.round(done / 1e6)} MB`;
      process.stderr.write(`\rosier: ${part} read`);
    },
    end: () => void (shown && process.stderr.write('\r\u001b[K')),
  };
}
