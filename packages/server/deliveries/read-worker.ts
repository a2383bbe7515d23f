import { briefOf } from '@osier/core/access';
import { checkRecord } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import type { KeptRepair } from '@osier/contract';
import {
  dataFields,
  recogniseFormat,
  recordReader,
  values,
  withLeftover,
  type ReadRecord,
  type Repair,
} from '@osier/core/marc';
import { matchKeys } from '@osier/core/matching';
import { createReadStream } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import type { Batch, ReadRow } from './read-batch';

/** Reads a delivered file in a thread of its own and hands over batches; waits for each to be stored. */
const { path, house } = workerData as { path: string; house: HouseRules };
const port = parentPort!;
const BATCH = 100;

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
  if (!read.record)
    return { seq, marc: null, repairs, repairCount: read.repairs.length, offset: read.offset };
  const marc = read.record;
  const findings = checkRecord(marc, house);
  const count = (severity: string) => findings.filter((f) => f.severity === severity).length;
  const { title, author, isbn, year } = briefOf(marc);
  return {
    seq,
    marc,
    repairs,
    repairCount: read.repairs.length,
    offset: read.offset,
    title,
    author,
    isbn,
    year,
    findings: JSON.stringify(findings),
    errors: count('error'),
    warnings: count('warning'),
    advice: count('advice'),
    keys: matchKeys(marc).map((k) => [k.kind, k.key]),
    barcodes: dataFields(marc, /^(852|876)$/).flatMap((f) => values(f, 'p')),
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
      if (rows.length >= BATCH) {
        await hand({ rows, bytes, end: false, problem: null });
        rows = [];
      }
    }
  };
  for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) {
    if (!reader) {
      const recognised = recogniseFormat(chunk);
      if ('problem' in recognised)
        return void (await hand({ rows: [], bytes: 0, end: true, problem: recognised.problem }));
      reader = withLeftover(recordReader(recognised.format));
    }
    bytes += chunk.length;
    await take(reader.push(chunk));
  }
  if (reader) await take(reader.end());
  await hand({ rows, bytes, end: true, problem: reader?.problem() ?? null });
}

void read().then(() => port.close());
