import type { Incoming } from '@osier/core/deliveries';
import { findMatches, proposedDecision, type Candidate } from '@osier/core/matching';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import { insertRows } from '../store/insert';
import { KINDS } from '../store/kinds';
import { candidatesFor } from './find-candidates';
import type { Batch, ReadRow } from './read-batch';

export const deliveryPath = (data: string, sha256: string): string => join(data, 'deliveries', sha256);

const COLUMNS = ['id', 'version', 'value', ...KINDS.incoming.columns];

/** Job: reads a delivered file into incoming records, with what is held already and what comes twice. */
export const readDelivery =
  (services: Services) =>
  async (run: JobRun): Promise<string | null> => {
    const { store, settings } = services;
    const id = Number(run.work.delivery);
    const delivery = await store.read('delivery', id);
    if (!delivery) return 'The delivery is no longer there.';
    // Read anew after an interruption: nothing hangs on incoming records before they are all there.
    await store.write(async (tx) => {
      await store.run(
        'DELETE FROM incoming_read WHERE incoming IN (SELECT id FROM incoming WHERE delivery = :id)',
        { id },
        tx,
      );
      await store.run('DELETE FROM incoming WHERE delivery = :id', { id }, tx);
      await store.run(
        "UPDATE readings SET state = 'reading', unreadable = 0, repaired = 0, problem = NULL WHERE delivery = :id",
        { id },
        tx,
      );
    });
    const house = await store.rulesNow();
    const worker = new Worker(join(settings.workers, 'read-worker.mjs'), {
      workerData: { path: deliveryPath(settings.data, delivery.value.sha256), house },
    });
    const seen = new Map<string, number>();
    let records = 0;
    let problem: string | null = null;
    try {
      for await (const batch of batches(worker)) {
        if (run.cancelled()) return 'Reading was cancelled; the records read so far are there.';
        await storeBatch(services, id, batch.rows, seen);
        records += batch.rows.filter((r) => r.marc).length;
        problem ??= batch.problem;
        run.tell(
          records,
          batch.end ? records : Math.round((records / Math.max(1, batch.bytes)) * delivery.value.bytes),
        );
      }
    } finally {
      await worker.terminate();
      const state = records === 0 ? 'failed' : 'ready';
      await store.write((tx) =>
        store.run(
          'UPDATE readings SET state = :state, problem = :problem WHERE delivery = :id',
          { id, state, problem: problem ?? (records === 0 ? 'No record in this file could be read.' : null) },
          tx,
        ),
      );
    }
    return problem;
  };

/** The worker's batches one by one; asking for the next lets it go on. */
async function* batches(worker: Worker): AsyncGenerator<Batch> {
  const queue: Batch[] = [];
  let wake: () => void = () => undefined;
  let failure: Error | null = null;
  worker.on('message', (b: Batch) => (queue.push(b), wake()));
  worker.on('error', (e: Error) => ((failure = e), wake()));
  for (;;) {
    while (queue.length === 0) {
      if (failure) throw failure as Error;
      await new Promise<void>((resolve) => (wake = resolve));
    }
    const batch = queue.shift()!;
    yield batch;
    if (batch.end) return;
    worker.postMessage('go on');
  }
}

async function storeBatch(
  services: Services,
  delivery: number,
  rows: readonly ReadRow[],
  seen: Map<string, number>,
): Promise<void> {
  const { store } = services;
  const readable = rows.filter((r) => r.marc !== null);
  const candidates = await candidatesFor(
    store,
    readable.flatMap((r) => r.keys!),
  );
  const taken = await takenBarcodes(services, readable);
  const first = readable.length ? await store.nextIds('incoming', readable.length) : 0;
  const incoming: unknown[][] = [];
  const read: unknown[][] = [];
  readable.forEach((row, i) => {
    const id = first + i;
    const keys = row.keys!.map(([kind, key]) => `${kind} ${key}`);
    const matches = findMatches(
      row.marc!,
      keys.flatMap((k): Candidate[] => candidates.get(k) ?? []),
    );
    const repeats =
      keys
        .filter((k) => !k.startsWith('control :'))
        .map((k) => seen.get(k))
        .find((n) => n !== undefined) ?? null;
    for (const k of keys) if (!seen.has(k)) seen.set(k, row.seq);
    const value: Incoming = {
      delivery,
      seq: row.seq,
      marc: row.marc!,
      decision: proposedDecision(matches, repeats),
      target: matches[0]?.record ?? null,
      state: 'waiting',
      record: null,
      recipe: null,
    };
    const takenHere = row
      .barcodes!.filter((b) => taken.has(b))
      .map((b) => ({ barcode: b, has: taken.get(b)! }));
    incoming.push([
      id,
      1,
      JSON.stringify(value),
      delivery,
      row.seq,
      'waiting',
      value.decision,
      null,
      row.title,
      row.author,
      row.isbn,
      row.year,
      row.findings,
      row.errors! + takenHere.length,
      row.warnings,
      row.advice,
    ]);
    read.push([
      id,
      JSON.stringify(row.marc),
      JSON.stringify(matches),
      repeats,
      row.repairs,
      JSON.stringify(takenHere),
    ]);
  });
  const unreadable = rows.length - readable.length;
  const repaired = rows.filter((r) => r.repairCount > 0).length;
  await store.write(async (tx) => {
    await insertRows(store, 'INSERT', 'incoming', COLUMNS, incoming, tx);
    await insertRows(
      store,
      'INSERT',
      'incoming_read',
      ['incoming', 'original', 'matches', 'repeats', 'repairs', 'taken'],
      read,
      tx,
    );
    await store.run(
      'UPDATE readings SET unreadable = unreadable + :unreadable, repaired = repaired + :repaired WHERE delivery = :delivery',
      { unreadable, repaired, delivery },
      tx,
    );
  });
}

async function takenBarcodes({ store }: Services, rows: readonly ReadRow[]): Promise<Map<string, string>> {
  const barcodes = [...new Set(rows.flatMap((r) => r.barcodes!))];
  if (barcodes.length === 0) return new Map();
  const found = await store.rows<{ barcode: string; title: string }>(
    'SELECT c.barcode, r.title FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record WHERE c.barcode IN (:barcodes)',
    { barcodes },
  );
  return new Map(found.map((f) => [f.barcode, f.title]));
}
