import type { NameMates, NameWork, WaitingName } from '../projections/alike-names';
import type { NamesAsked, NamesMet, NamesRead, RowsAsked } from '../projections/all-names';
import type { Compared } from '@osier/core/duplicates';
import type { PairRecords } from '../projections/alike-records';
import type { AnswerWork, ReadAnswer } from '../neighbours/read-answer';
import type { NamesAnswer } from '../registry/read-names';
import type { LabelOrder, LabelsSet } from '../labels/label-worker';
import type { ReckonOrder, ReckonStocktake } from '../stocktake/reckon-order';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { ANSWERING } from '../store/give-way';
import type { LoanTable } from './read-loan-figures';
import type { ScanList, ScanListOrder } from './read-scan-list';

/** Threads for computing that would hold up everybody else. They compute with core and never open the store. */
export interface WorkerPool {
  readonly names: NameWork;
  readonly pairRecords: PairRecords;
  readonly reckonStocktake: ReckonStocktake;
  readonly readScanList: (order: ScanListOrder) => Promise<ScanList>;
  readonly readLoanFigures: (file: { readonly path: string; readonly on: string }) => Promise<LoanTable>;
  readonly readAnswer: (work: AnswerWork) => Promise<ReadAnswer>;
  readonly readNames: (bytes: Uint8Array) => Promise<NamesAnswer>;
  readonly labelPdf: (order: LabelOrder) => Promise<LabelsSet>;
  close(): Promise<void>;
}

const buffersOf = (read: readonly Pick<NamesRead, 'columns'>[]): ArrayBuffer[] =>
  read
    .flatMap(({ columns: { own, words, near } }) => [own.starts, own.values, words, near.starts, near.values])
    .flatMap(({ buffer }) => (buffer instanceof ArrayBuffer ? [buffer] : []));

/** A pool of threads that run the bundled script in `folder`; a thread that has nothing to do for a while ends. */
export function workerPool(folder: string): WorkerPool {
  // What a function of the script gives is said where it is called.
  const pool = new Piscina<
    | readonly WaitingName[]
    | NameMates
    | readonly Pick<NamesRead, 'ids' | 'columns'>[]
    | NamesAsked
    | { readonly met: NamesMet; readonly names: string }
    | RowsAsked
    | string
    | readonly Compared[]
    | ReckonOrder
    | LabelOrder
    | AnswerWork
    | { readonly path: string; readonly on: string }
    | ScanListOrder,
    never
  >({
    filename: join(folder, 'pool-worker.mjs'),
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 10_000,
    workerData: ANSWERING,
  });
  // Somebody waits for these with a book in the hand: comparing that goes on beside does not hold them up.
  const answers = new Piscina<AnswerWork | Uint8Array, never>({
    filename: join(folder, 'pool-worker.mjs'),
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: 60_000,
  });
  return {
    names: {
      readForms: (waiting) => pool.run(waiting, { name: 'readForms' }),
      compareNames: (mates) => pool.run(mates, { name: 'compareNames' }),
      readAll: (headings) => pool.run(headings, { name: 'readAll' }),
      // The columns are handed over, not copied.
      indexAll: (read) => pool.run(read, { name: 'indexAll', transferList: buffersOf(read) }),
      meetingOf: (asked) => pool.run(asked, { name: 'meetingOf' }),
      compareMet: (met, names) => pool.run({ met, names }, { name: 'compareMet' }),
      nameRows: (asked) => pool.run(asked, { name: 'nameRows' }),
    },
    pairRecords: (compared) => pool.run(compared, { name: 'pairRecords' }),
    reckonStocktake: (order) => pool.run(order, { name: 'reckonStocktake' }),
    readScanList: (order) => pool.run(order, { name: 'readScanList' }),
    readLoanFigures: (file) => pool.run(file, { name: 'readLoanFigures' }),
    readAnswer: (work) => answers.run(work, { name: 'readAnswer' }),
    readNames: (bytes) => answers.run(bytes, { name: 'readNames' }),
    labelPdf: (order) => pool.run(order, { name: 'labelPdf', filename: join(folder, 'label-worker.mjs') }),
    close: async () => void (await Promise.all([pool.destroy(), answers.destroy()])),
  };
}
