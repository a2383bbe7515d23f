import { briefOf } from '@osier/core/access';
import { checkerFor, type Finding } from '@osier/core/checks';
import type { DeliverySettings, IncomingFields } from '@osier/core/deliveries';
import { copiesFrom, type CopyRules } from '@osier/core/holdings';
import type { HouseRules } from '@osier/core/house';
import type { KeptRepair } from '@osier/contract';
import {
  recogniseFormat,
  recordReader,
  withLeftover,
  type MarcRecord,
  type ReadRecord,
  type Repair,
} from '@osier/core/marc';
import { describe } from '@osier/core/matching';
import { recipeRunner, type Recipe } from '@osier/core/recipes';
import { createReadStream } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { Patience, sleepWhileAsked } from '../store/patience';
import { keysOf } from './keys';
import type { Batch, ReadRow } from './read-batch';

/** What the thread is told to read, and how. */
export interface ReadWork {
  readonly path: string;
  readonly house: HouseRules;
  readonly settings: Pick<DeliverySettings, 'format' | 'charset'>;
  readonly recipe: Recipe | null;
  /** Name on the supplier sheet, for steps that are for some suppliers only. */
  readonly supplier: string;
  readonly copies: CopyRules;
  /** How many requests are being answered; reading lets them go first. */
  readonly answering: Int32Array;
}

/** Reads a delivered file in a thread of its own and hands over batches; waits for each to be stored. */
const { path, house, settings, recipe, supplier, copies, answering } = workerData as ReadWork;
const port = parentPort!;
const checker = checkerFor(house);
const clean = recipe && recipeRunner(recipe, checker, supplier);
const patience = new Patience();
const BATCH = 200;

let goOn: () => void = () => undefined;
port.on('message', () => goOn());

/** What could not be kept in the record goes along as base64. */
const keptRepair = ({ bytes, ...r }: Repair): KeptRepair =>
  bytes ? { ...r, bytes: Buffer.from(bytes).toString('base64') } : r;

async function hand(batch: Batch): Promise<void> {
  const stored = new Promise<void>((resolve) => (goOn = resolve));
  port.postMessage(batch);
  await stored;
}

function rowOf(read: ReadRecord, seq: number): ReadRow {
  const repairs = JSON.stringify(read.repairs.map(keptRepair));
  return {
    seq,
    repairs,
    repairCount: read.repairs.length,
    record: read.record ? contentOf(read.record) : null,
  };
}

function contentOf(read: MarcRecord): NonNullable<ReadRow['record']> {
  const cleaned = clean?.(read) ?? null;
  const changed = cleaned !== null && cleaned.touched.length > 0;
  const marc = changed ? cleaned.record : read;
  const findings = checker.check(marc);
  const before = changed ? checker.check(read) : findings;
  const count = (severity: Finding['severity']) => findings.filter((f) => f.severity === severity).length;
  const { title, author, isbn, year } = briefOf(marc);
  const description = describe(marc);
  const fields: IncomingFields = { marc, recipe: changed && recipe ? recipe.name : null };
  return {
    fields: JSON.stringify(fields),
    original: JSON.stringify(read),
    title,
    author,
    isbn,
    year,
    findings: JSON.stringify(findings),
    errors: count('error'),
    warnings: count('warning'),
    advice: count('advice'),
    before: JSON.stringify(before.map(({ rule, severity }) => ({ rule, severity }))),
    description,
    keys: keysOf(description),
    copies: copiesFrom(marc, copies),
  };
}

async function read(): Promise<void> {
  let seq = 0;
  let rows: ReadRow[] = [];
  let bytes = 0;
  let reader: ReturnType<typeof withLeftover> | null = null;
  const take = async (found: readonly ReadRecord[]) => {
    for (const r of found) {
      rows.push(rowOf(r, ++seq));
      sleepWhileAsked(answering, patience);
      if (rows.length >= BATCH) {
        await hand({ rows, bytes, end: false, problem: null });
        rows = [];
      }
    }
  };
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) {
    if (!reader) {
      const recognised = settings.format === 'found' ? recogniseFormat(chunk) : { format: settings.format };
      if ('problem' in recognised)
        return void (await hand({ rows: [], bytes: 0, end: true, problem: recognised.problem }));
      const charset = settings.charset === 'found' ? {} : { charset: settings.charset };
      reader = withLeftover(recordReader(recognised.format, charset));
    }
    bytes += chunk.length;
    await take(reader.push(chunk));
  }
  if (reader) await take(reader.end());
  await hand({ rows, bytes, end: true, problem: reader?.problem() ?? null });
}

void read().then(() => port.close());
