import { availableParallelism } from 'node:os';
import { parentPort, Worker as Thread } from 'node:worker_threads';
import type { FileFormat } from '@osier/core/marc';
import { putterFor, worker, type FinishedWork, type Work } from './work';

interface Task {
  readonly block: Uint8Array;
  readonly offset: number;
  /** Records before this block. */
  readonly before: number;
}
interface Order {
  readonly work: Work;
  readonly format: FileFormat;
}

const MOST = 4;
/** Blocks that a thread has in hand at once, so that the next one is there when the first is done. */
const AHEAD = 2;

/** Threads that do one work on the blocks of a file; results come back in the order of the blocks. */
export interface Pool {
  /** Resolves when there is room for one more block. */
  add(task: Task): Promise<void>;
  end(): Promise<void>;
}

export function pool(file: string, order: Order, done: (result: FinishedWork) => void): Pool {
  const count = Math.min(MOST, availableParallelism());
  const idle: Thread[] = [];
  const waiting: (() => void)[] = [];
  const results = new Map<number, FinishedWork>();
  let [given, next] = [0, 0];
  let failed: Error | null = null;
  const free = (thread: Thread) => {
    idle.push(thread);
    waiting.shift()?.();
  };
  const threads = Array.from({ length: count }, () => {
    const thread = new Thread(file, { workerData: order });
    thread.on('message', ({ number, result }: { number: number; result: FinishedWork }) => {
      results.set(number, result);
      for (let r = results.get(next); r; r = results.get(next)) {
        results.delete(next++);
        done(r);
      }
      free(thread);
    });
    thread.on('error', (error) => {
      failed = error;
      for (const go of waiting.splice(0)) go();
    });
    return thread;
  });
  for (let i = 0; i < AHEAD; i++) idle.push(...threads);
  const aThread = async () => {
    while (idle.length === 0 && !failed) await new Promise<void>((go) => waiting.push(go));
    if (failed) throw failed;
    return idle.pop()!;
  };
  return {
    async add({ block, offset, before }) {
      const thread = await aThread();
      thread.postMessage({ number: given++, block, offset, before }, [block.buffer as ArrayBuffer]);
    },
    async end() {
      const all: Thread[] = [];
      while (all.length < AHEAD * count) all.push(await aThread());
      await Promise.all(threads.map((t) => t.terminate()));
    },
  };
}

/** What a thread of the pool does. */
export function serve({ work, format }: Order): void {
  const port = parentPort!;
  const loading = putterFor(work);
  port.on('message', ({ number, block, offset, before }: Task & { number: number }) => {
    void loading.then((put) => {
      const w = worker(work, put, format, offset, before);
      w.push(block);
      w.end();
      const result = w.take();
      port.postMessage({ number, result }, [
        result.out.buffer as ArrayBuffer,
        result.fixed.buffer as ArrayBuffer,
      ]);
    });
  });
}
