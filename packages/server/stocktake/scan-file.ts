import type { JobState } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { createReadStream } from 'node:fs';
import { rename, rm, stat } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { basename, join } from 'node:path';
import { createInterface } from 'node:readline';
import { keepFile } from '../deliveries/keep-file';
import { ProblemError, wrong } from '../http/problem';
import type { JobWork } from '../jobs/jobs';
import { scannedCodes } from '../copies/scanned';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { loadCodes, openStocktake } from './stocktake';

const LARGEST = 20 * 1024 * 1024;
const LONGEST_LINE = 60;
const MOST = 500_000;
const fileAt = (data: string, name: string) => join(data, 'deliveries', `scans-${basename(name)}`);

/** Takes a scanner's file of any length and loads it as a job. */
export async function takeScanFile(
  { store, settings, jobs }: Services,
  person: number,
  id: number,
  name: string,
  body: IncomingMessage,
): Promise<JobState> {
  await openStocktake(store, id);
  const kept = await keepFile(body, {
    data: settings.data,
    largestFile: Math.min(LARGEST, settings.largestFile),
  });
  const file = kept.sha256;
  await rename(kept.path, fileAt(settings.data, file));
  return jobs.begin('load-scans', `Loading ${name}`, person, { stocktake: id, name, file });
}

/** Job: loads the codes of a scanner's file into a stocktake, as one entry. */
export const loadScanFile =
  (services: Services): JobWork =>
  async (run) => {
    const stocktake = Number(run.work.stocktake);
    const name = String(run.work.name);
    const path = fileAt(services.settings.data, String(run.work.file));
    const loaded = run.cursor.loaded === undefined ? undefined : Number(run.cursor.loaded);
    try {
      if (loaded === undefined && (await stat(path).catch(() => null)) === null)
        throw wrong('file', 'The file is no longer there. Load it again.');
      const codes = loaded === undefined ? await codesOf(services.store, path) : [];
      if (loaded === undefined)
        await loadCodes(services, run.person, stocktake, name, codes, (tx, entry) =>
          run.keep({ loaded: codes.length }, codes.length, tx, entry ?? undefined),
        );
      return `Loaded ${counted(loaded ?? codes.length, 'scan')} from ${name}.`;
    } finally {
      await rm(path, { force: true });
    }
  };

/** The barcodes of a file, looked up some hundreds at a time. */
async function codesOf(store: Store, path: string): Promise<string[]> {
  const lines = await linesIn(path);
  const codes: string[] = [];
  for (let at = 0; at < lines.length; at += AT_ONCE)
    codes.push(...(await scannedCodes(store, lines.slice(at, at + AT_ONCE))));
  return codes.filter((code) => code !== '');
}
const AT_ONCE = 500;

async function linesIn(path: string): Promise<string[]> {
  const codes: string[] = [];
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
    if (line.trim() === '') continue;
    if (line.trim().length > LONGEST_LINE)
      throw new ProblemError(
        422,
        `This does not look like a scanner’s file: “${line.trim().slice(0, 30)}…”. One barcode a line is expected.`,
      );
    if (codes.push(line) > MOST)
      throw new ProblemError(422, `A file may have up to ${MOST.toLocaleString('en-GB')} scans.`);
  }
  return codes;
}
