import type { Incoming } from '@osier/core/deliveries';
import { checkerFor, type Checker } from '@osier/core/checks';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { counted } from '@osier/core/changes';
import { JobStopped, lastWord } from '../jobs/jobs';
import { recipeIfThere, whyNotRun } from '../recipes/recipes';
import type { Services } from '../services';
import { deliveryJob } from './delivery-job';
import type { Transaction } from '../store/database';
import { ANSWERING } from '../store/give-way';
import { insertRows } from '../store/insert';
import { tableOf } from '../store/tables';
import { matcherFor } from './matcher';
import { countRead, forgetReading, keepMatchedBefore } from './queries';
import type { Batch, ReadRow } from './read-batch';
import type { ReadWork } from './read-worker';
import { copyWork, settingsFor, supplierOf } from './settings';

/** Where the file of a delivery is kept, by its digest. */
export const deliveryPath = (data: string, sha256: string): string => join(data, 'deliveries', sha256);

const incomingTable = tableOf('incoming');
const fieldsTable = tableOf('fields');
const INCOMING = ['id', 'version', 'value', ...incomingTable.columns];
const FIELDS = ['id', 'version', 'value', ...fieldsTable.columns];
const READ = ['incoming', 'original', 'matches', 'repeats', 'repairs', 'before'];

/** Job: reads a delivered file into incoming records, with what is held already and what comes twice. */
export const readDelivery = deliveryJob(async (services, run, id, delivery) => {
  const { store, settings } = services;
  // Read anew after an interruption: nothing hangs on incoming records before they are all there.
  await store.write(async (tx) => {
    await forgetReading(store, id, tx);
    const anew = { state: 'reading', unreadable: 0, repaired: 0, problem: null } as const;
    await store.table('readings').update(anew, { delivery: id }, tx);
    await keepMatchedBefore(store, id, tx);
  });
  const house = await store.rulesNow();
  const checker = checkerFor(house);
  const how = settingsFor(delivery);
  const copies = await copyWork(store, how);
  const named = how.recipe === '' ? null : await recipeIfThere(store, how.recipe);
  const whyNot = named && whyNotRun(named);
  const recipe = whyNot === null ? named : null;
  const workerData: ReadWork = {
    path: deliveryPath(settings.data, delivery.sha256),
    house,
    settings: { format: how.format, charset: how.charset },
    recipe,
    supplier: supplierOf(delivery),
    copies: copies.rules,
    answering: ANSWERING,
  };
  const worker = new Worker(join(settings.workers, 'read-worker.mjs'), { workerData });
  const match = matcherFor(how, copies);
  let records = 0;
  let expected = 0;
  let problem: string | null = null;
  const ends = (state: 'ready' | 'failed' | 'cancelled', said: string | null) =>
    store.write((tx) => store.table('readings').update({ state, problem: said }, { delivery: id }, tx));
  const soFar = () =>
    `${records.toLocaleString('en-GB')} of about ${counted(Math.max(records, expected), 'record')} read`;
  // The next batch is matched while the last one is written.
  let writing: Promise<void> = Promise.resolve();
  try {
    for await (const batch of batches(worker)) {
      if (run.stopping()) return null;
      if (run.cancelled()) {
        await writing;
        await ends('cancelled', `Cancelled, ${soFar()}.`);
        return `Reading was cancelled, ${soFar()}.`;
      }
      const write = await matchedBatch(services, id, batch.rows, match, checker);
      await writing;
      writing = write();
      writing.catch(() => undefined);
      records += batch.rows.filter((r) => r.record).length;
      problem ??= batch.problem;
      expected = batch.end ? records : Math.round((records / Math.max(1, batch.bytes)) * delivery.bytes);
      run.tell(records, expected);
    }
    await writing;
  } catch (error) {
    if (!run.stopping())
      // What went wrong is the job's to tell; that this cannot be kept too, as on a full disk, must not hide it.
      await ends('failed', `Reading failed, ${soFar()}. ${lastWord(error)}`).catch(() => undefined);
    throw error;
  } finally {
    // Whatever ended the reading: what is being written is written before the job is over.
    await Promise.allSettled([writing, worker.terminate()]);
  }
  await ends(
    records === 0 ? 'failed' : 'ready',
    problem ?? (records === 0 ? 'No record in this file could be read.' : null),
  );
  const gone =
    how.recipe !== '' && !recipe
      ? `${whyNot ?? 'The recipe of its supplier sheet is no longer there.'} The records were read without it.`
      : null;
  return [problem, gone].filter(Boolean).join(' ') || null;
});

/** The worker's batches one by one. It reads the next one while the last is stored, and no further ahead. */
async function* batches(worker: Worker): AsyncGenerator<Batch> {
  const queue: Batch[] = [];
  let wake: () => void = () => undefined;
  let failure: Error | null = null;
  worker.on('message', (b: Batch) => (queue.push(b), wake()));
  worker.on('error', (e: Error) => ((failure = e), wake()));
  worker.on('exit', () => {
    failure ??= new JobStopped('The reading ended without a word, perhaps for lack of memory.');
    wake();
  });
  for (;;) {
    while (queue.length === 0) {
      if (failure) throw failure as Error;
      await new Promise<void>((resolve) => (wake = resolve));
    }
    const batch = queue.shift()!;
    if (!batch.end) worker.postMessage('go on');
    yield batch;
    if (batch.end) return;
  }
}

type Readable = ReadRow & { readonly record: NonNullable<ReadRow['record']> };

/** Matches what was read; gives what keeps it. */
async function matchedBatch(
  { store }: Services,
  delivery: number,
  rows: readonly ReadRow[],
  match: ReturnType<typeof matcherFor>,
  checker: Checker,
): Promise<() => Promise<void>> {
  const readable = rows.filter((r): r is Readable => r.record !== null);
  const matched = await match(
    readable.map(({ seq, record }) => ({ seq, ...record })),
    store,
  );
  const first = readable.length ? await store.nextIds('incoming', readable.length) : 0;
  const incoming: unknown[][] = [];
  const fields: unknown[][] = [];
  const read: unknown[][] = [];
  readable.forEach(({ seq, record, repairs }, i) => {
    const id = first + i;
    const { matches, repeats, outcome, target, copies } = matched[i]!;
    const value: Incoming = {
      delivery,
      seq,
      decision: outcome,
      chosen: false,
      target,
      state: 'waiting',
      record: null,
      copies,
      note: '',
      edits: 0,
    };
    incoming.push([id, 1, JSON.stringify(value), ...incomingTable.values(value, checker)]);
    const { title, author, isbn, year, findings, errors, warnings, advice } = record;
    fields.push([id, 1, record.fields, title, author, isbn, year, errors, warnings, advice, findings]);
    read.push([id, record.original, JSON.stringify(matches), repeats, repairs, record.before]);
  });
  const unreadable = rows.length - readable.length;
  const repaired = rows.filter((r) => r.repairCount > 0).length;
  const keep = async (tx: Transaction) => {
    await insertRows(store, 'INSERT', 'incoming', INCOMING, incoming, tx);
    await insertRows(store, 'INSERT', 'incoming_fields', FIELDS, fields, tx);
    await insertRows(store, 'INSERT', 'incoming_read', READ, read, tx);
    await countRead(store, delivery, { unreadable, repaired }, tx);
  };
  return () => store.write(keep);
}
