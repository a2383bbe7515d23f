import type { JobState } from '@osier/contract';
import { counted, creation } from '@osier/core/changes';
import type { Act } from '@osier/core/acts';
import { locationsOf, type ScanBatch, type ScanWalk, type Stretch } from '@osier/core/stocktake';
import { codeProblem } from '@osier/core/holdings';
import { rename, rm, stat } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { basename, join } from 'node:path';
import { boolean, number, object, string } from 'yup';
import { keepFile } from '../deliveries/keep-file';
import { ProblemError, wrong, wrongFields } from '../http/problem';
import type { JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import { scannedCodes } from '../copies/scanned';
import { today } from '../day';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';
import { sameFile, sameScans } from './queries';
import { openStocktake, stocktakeToScan } from './stocktake';

const LARGEST = 20 * 1024 * 1024;
/** Codes that are looked up at once. */
const AT_ONCE = 500;
const fileAt = (data: string, name: string) => join(data, 'deliveries', `scans-${basename(name)}`);

/** A hand scanner’s list: its name, the day of the walk (today where none is said), the location walked. */
export interface ScannedFile {
  readonly name: string;
  readonly on: string;
  readonly location: string;
  /** It is loaded although the same scans are there already. */
  readonly again: boolean;
  /** SHA-256 of its bytes; '' for codes that were not sent as a file. */
  readonly file?: string;
}

/** Takes a scanner's file of any length and loads it as a job. */
export async function takeScanFile(
  { store, settings, jobs }: Services,
  person: number,
  id: number,
  list: ScannedFile,
  body: IncomingMessage,
): Promise<JobState> {
  await checked(store, id, person, list);
  const kept = await keepFile(body, {
    data: settings.data,
    largestFile: Math.min(LARGEST, settings.largestFile),
  });
  const file = kept.sha256;
  const same = list.again ? undefined : await sameFile(store, id, file);
  if (same) {
    await rm(kept.path, { force: true });
    throw wrong('again', `This file is loaded already, as ${same.name}. Nothing was loaded.`);
  }
  await rename(kept.path, fileAt(settings.data, file));
  return jobs.begin('load-scans', `Loading ${list.name}`, person, { stocktake: id, file, ...list });
}

/** Refuses a list that cannot be loaded so. */
async function checked(
  store: Store,
  id: number,
  person: number,
  { on, location }: ScannedFile,
): Promise<void> {
  const { stretch } = (await stocktakeToScan(store, id, person)).value;
  if (on > today()) throw wrong('on', 'The day of a walk is not to come yet.');
  const here = await placesOf(store, stretch);
  const problem = location === '' ? null : codeProblem('location', 'location', location, here);
  if (problem) throw wrongFields([problem]);
}

/** The locations of the branches of a stretch. */
const placesOf = async (store: Store, { also, branch }: Stretch) =>
  locationsOf({ also, branch, locations: [] }, (await store.lists()).value.locations);

const loadWork = object({
  stocktake: number().integer().required(),
  file: string().required(),
  name: string().required(),
  on: string().default(''),
  location: string().default(''),
  again: boolean().default(false),
});

/** Job: loads the codes of a scanner's file into a stocktake, as one entry. */
export const loadScanFile =
  (services: Services): JobWork =>
  async (run) => {
    const { stocktake, file, ...list } = keptWork(loadWork, run.work);
    const path = fileAt(services.settings.data, file);
    const loaded = run.cursor.loaded === undefined ? undefined : Number(run.cursor.loaded);
    if (loaded !== undefined) return told(loaded, list.name);
    try {
      if ((await stat(path).catch(() => null)) === null)
        throw wrong('file', 'The file is no longer there. Load it again.');
      const read = await services.pool.readScanList({ path, isOnePlace: list.location !== '' });
      if ('problem' in read) throw new ProblemError(422, read.problem);
      const walks = await walksOf(services.store, stocktake, list, read.walks);
      const codes = walks.reduce((n, w) => n + w.codes.length, 0);
      await loadCodes(services, run.person, stocktake, { ...list, file }, walks, (tx, entry) =>
        run.keep({ loaded: codes }, codes, tx, entry ?? undefined),
      );
      return told(codes, list.name, walks.length);
    } finally {
      if (!run.stopping()) await rm(path, { force: true });
    }
  };

const told = (codes: number, name: string, walks = 1): string =>
  `Loaded ${counted(codes, 'scan')} from ${name}${walks > 1 ? `, in ${walks} walks` : ''}.`;

/** Scans that are loaded as one walk. */
type LoadedWalk = Pick<ScanBatch, 'name' | 'codes'> & { readonly on: string; readonly location: string };

/** The walks of a file as they are loaded: a day and a location that the person says go before those of the file. */
async function walksOf(
  store: Store,
  id: number,
  { name, on, location }: ScannedFile,
  read: readonly ScanWalk[],
): Promise<LoadedWalk[]> {
  const { stretch } = (await openStocktake(store, id)).value;
  const here = await placesOf(store, stretch);
  const walks: LoadedWalk[] = [];
  for (const { walk, place, codes, on: day } of read)
    walks.push({
      ...{ name: [name, walk].filter(Boolean).join(', '), on: on || day },
      ...{ location: location || placeOf(place, here), codes: await codesOf(store, codes) },
    });
  return walks.filter((w) => w.codes.length);
}

/** The code of a location that a file names by code or name; one that is none of the stretch is refused. */
function placeOf(named: string, here: Awaited<ReturnType<typeof placesOf>>): string {
  if (named === '') return '';
  const small = named.toLowerCase();
  const found =
    here.find((l) => l.code.toLowerCase() === small) ?? here.find((l) => l.name.toLowerCase() === small);
  if (found) return found.code;
  throw wrong(
    'location',
    `The file says “${named.slice(0, 60)}”, which is no location here. Choose the location walked, and what the file says is passed over. Nothing was loaded.`,
  );
}

/** The barcodes that scans stand for, looked up some hundreds at a time. */
async function codesOf(store: Store, raw: readonly string[]): Promise<string[]> {
  const codes: string[] = [];
  for (let at = 0; at < raw.length; at += AT_ONCE)
    codes.push(...(await scannedCodes(store, raw.slice(at, at + AT_ONCE))));
  return codes.filter((code) => code !== '');
}

/** Loads a short list: one entry in the daybook, which can be taken back. */
export async function loadScans(
  services: Services,
  person: number,
  id: number,
  list: ScannedFile,
  raw: readonly string[],
): Promise<{ entry: number; sentence: string }> {
  await checked(services.store, id, person, list);
  const { name, on, location } = list;
  const codes = await codesOf(services.store, raw);
  return loadCodes(services, person, id, list, [{ name, on, location, codes }]);
}

/** The same for walks of clean codes, as one entry; `also` is done in the transaction that keeps them. */
const loadCodes = (
  { store }: Services,
  person: number,
  id: number,
  { name, again, file = '' }: Pick<ScannedFile, 'name' | 'again' | 'file'>,
  walks: readonly LoadedWalk[],
  also?: (tx: Transaction, entry: number | null) => Promise<void>,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const stocktake = await openStocktake(s, id);
    const scans = walks.reduce((n, w) => n + w.codes.length, 0);
    if (scans === 0) throw wrong('codes', 'There is no barcode in this file.');
    for (const { codes } of again ? [] : walks) {
      const same = await sameScans(s, id, codes);
      if (same)
        throw wrong(
          'again',
          `The same ${counted(codes.length, 'scan')} are loaded already, as ${same.name}. Nothing was loaded.`,
        );
    }
    const did: Act = {
      act: 'load-scans',
      names: { stocktake: stocktake.value.name, file: name },
      counts: { scans },
    };
    const first = await s.nextIds('scanbatch', walks.length);
    const changes = walks.map((walk, i) => {
      const batch: ScanBatch = { stocktake: id, ...walk, on: walk.on || today(), ...(file && { file }) };
      return creation('scanbatch', first + i, batch);
    });
    return { did, changes, ...(also && { also }) };
  });
