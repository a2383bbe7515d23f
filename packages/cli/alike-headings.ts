import { alikeForms, gather, type Gathered } from '@osier/core/headings';
import {
  recogniseFormat,
  recordReader,
  type MarcRecord,
  type ReadRecord,
  type RecordReader,
} from '@osier/core/marc';
import { createReadStream } from 'node:fs';
import { UsageError } from './usage';

/** Reads all records of a file, or of standard input for `-`; gives whether one was repaired or lost. */
async function readAll(file: string, take: (record: MarcRecord) => void): Promise<boolean> {
  const source = file === '-' ? process.stdin : createReadStream(file, { highWaterMark: 1 << 20 });
  let reader: RecordReader | null = null;
  let [records, isWhole] = [0, true];
  const took = (found: readonly ReadRecord[]) => {
    for (const { record, repairs } of found) {
      if (repairs.length || !record) isWhole = false;
      if (!record) continue;
      records++;
      take(record);
    }
  };
  for await (const chunk of source as AsyncIterable<Buffer>) {
    if (!reader) {
      const found = recogniseFormat(chunk);
      if ('problem' in found) throw new UsageError(`${file}: ${found.problem}`);
      reader = recordReader(found.format);
    }
    took(reader.push(chunk));
  }
  if (!reader) throw new UsageError(`${file} is empty.`);
  took(reader.end());
  const problem = reader.problem();
  if (records === 0) throw new UsageError(problem ?? `No record in ${file} could be read.`);
  return isWhole && problem === null && reader.leftover().length === 0;
}

/**
 * `osier headings FILE [--records RECORDS]`: groups of headings that may be one, a JSON object a line. 0 when done, 2 when a record was repaired or
 * lost.
 */
export async function printAlike(file: string, records: string | undefined): Promise<number> {
  const gathered: Gathered = { headings: new Map() };
  let isWhole = await readAll(file, (record) => gather(gathered, record));
  if (records !== undefined)
    isWhole = (await readAll(records, (record) => gather(gathered, record, true))) && isWhole;
  for (const { type, verdict, members, evidence } of alikeForms(gathered))
    process.stdout.write(`${JSON.stringify({ type, verdict, members, evidence })}\n`);
  return isWhole ? 0 : 2;
}
