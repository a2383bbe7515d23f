import { hasAny, isAddress, parseAddress, type Address } from '@osier/core/address';
import { addressPlan, type FindPlan } from '@osier/core/find';
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ProblemError } from '../http/problem';
import type { Store } from '../store/store';
import { keptValue } from '../store/kept-json';
import { oldRecordKeys } from '../projections/record-keys';
import { recordsMatching, recordsWithText } from './queries';
import { matchOf } from './queries.conditions';
import type { AddressSaid, AddressWork } from './address-process';

/** A search by address under way, for all that ask for it meanwhile. */
interface Search {
  /** How often was written to the store before it was begun. */
  readonly at: number;
  /** How often records had changed before. */
  readonly changes: number;
  readonly found: Promise<readonly number[]>;
  /** What it has found up to now. */
  readonly soFar: SoFar;
  waiting: number;
  /** When somebody asked so last, in milliseconds. */
  asked: number;
  stop(): void;
}
/** What looks, whenever that was begun. */
type Looking = Omit<Search, 'at' | 'changes'>;
/** Those found up to now, and how much of all was looked at, from 0 to 1. */
interface SoFar {
  readonly ids: number[];
  share: number;
}
interface Kept {
  readonly at: number;
  readonly ids: readonly number[];
}
/** Answers good until something is written, and searches under way, of each store. */
interface Known {
  /** How often records have changed since somebody asks for what there is so far; 0 before. */
  changes: number;
  readonly answers: Map<string, Kept>;
  readonly running: Map<string, Search>;
}
const known = new WeakMap<Store, Known>();
const KEPT = 8;
/** Searches that look through all records at a time; one more is asked to wait, so that the others are not slowed. */
const MOST = 2;

/**
 * The records that have what an address names. Every record with such a tag is looked at, in a process of its own; the work ends when
 * nobody waits for it any more (`signal`).
 */
export async function having(
  store: Store,
  written: string,
  signal?: AbortSignal,
): Promise<readonly number[]> {
  const now = store.writes();
  for (;;) {
    const { mine, kept } = knownOf(store, written);
    if (kept && kept.at >= now) return kept.ids;
    const search = searchFor(store, mine, written);
    const ids = await waitFor(search, signal);
    // One that was under way before may have read what has been written over since.
    if (search.at >= now) return ids;
  }
}

/** Those that are known when the first page of them is, or when somebody has waited long enough for more. */
export interface FirstOfThem {
  readonly ids: readonly number[];
  /** How much of all was looked at, from 0 to 1; null when all was. */
  readonly running: number | null;
}
/** Whoever asks for what there is so far waits no longer than this, in milliseconds. */
const PATIENCE = 250;
/** They ask again: a search goes on for so long after somebody has asked. */
const GRACE = 5000;

/** Of more than are shown and counted no more are given before the end. */
const MOST_SO_FAR = 10_001;

/**
 * The same, as far as it has come: the first of them while the others are looked for. What was looked for before records changed is not told
 * as the end: whoever asks again begins a new search.
 */
export async function havingSoFar(store: Store, written: string, signal?: AbortSignal): Promise<FirstOfThem> {
  const { mine, kept } = knownOf(store, written);
  if (kept?.at === store.writes()) return { ids: kept.ids, running: null };
  hearChanges(store, mine);
  const search = searchFor(store, mine, written);
  const later = new Promise<null>((resolve) => void setTimeout(resolve, PATIENCE, null));
  search.waiting++;
  try {
    const ids = await Promise.race([search.found, later, whenLeft(signal)]);
    if (ids) return { ids, running: search.changes === mine.changes ? null : 1 };
    return { ids: search.soFar.ids.slice(0, MOST_SO_FAR), running: search.soFar.share };
  } finally {
    search.waiting--;
    const asked = Date.now();
    search.asked = asked;
    // A timer may be a moment early by the clock: that nobody has asked since is enough.
    setTimeout(() => void (search.asked === asked && search.waiting === 0 && search.stop()), GRACE).unref();
  }
}

/** Nobody waits, and nobody who asked for what there was so far is likely to ask again. */
const stopIfAlone = (search: Search): void =>
  void (search.waiting === 0 && Date.now() - search.asked >= GRACE && search.stop());

/** What is known of an address: all answers of a store, and the last one of this. */
function knownOf(store: Store, written: string): { readonly mine: Known; readonly kept: Kept | undefined } {
  const mine = known.get(store) ?? firstOf(store);
  return { mine, kept: mine.answers.get(written) };
}

function firstOf(store: Store): Known {
  const mine: Known = { changes: 0, answers: new Map(), running: new Map() };
  known.set(store, mine);
  return mine;
}

/** Counts from now on how often records change; searches that were begun before may have missed something. */
function hearChanges(store: Store, mine: Known): void {
  if (mine.changes > 0) return;
  mine.changes = 1;
  store.feed.listen(({ kinds }) => {
    if ('record' in kinds) mine.changes++;
  });
}

/** The search for an address that is under way, or a new one; its answer is kept. */
function searchFor(store: Store, mine: Known, written: string): Search {
  const running = mine.running.get(written);
  if (running) return running;
  const address = parseAddress(written);
  if (!isAddress(address)) throw new Error('It is no field address.');
  const search = begun(store, mine, written, address);
  search.found.then(
    (ids) => {
      mine.answers.delete(written);
      mine.answers.set(written, { at: search.at, ids });
      for (const old of [...mine.answers.keys()].slice(0, Math.max(0, mine.answers.size - KEPT)))
        mine.answers.delete(old);
    },
    // Whoever waits is told.
    () => undefined,
  );
  return search;
}

function begun(store: Store, mine: Known, written: string, address: Address): Search {
  const plan = addressPlan(address);
  if (plan === null) refuseMany(mine.running.size);
  const tag = /^[0-9]{3}$/.test(address.tag) ? `"tag":"${address.tag}"` : '';
  const work: AddressWork = { file: store.file, address: written, tag };
  // Before it reads anything.
  const begins = { at: store.writes(), changes: mine.changes };
  const everywhere = () =>
    store.workers === null
      ? besideOthers(store, work, address)
      : inProcess(join(store.workers, 'address-process.mjs'), work);
  const looking = plan
    ? narrowed(store, address, plan, () => {
        // Beside itself.
        refuseMany(mine.running.size - 1);
        return everywhere();
      })
    : everywhere();
  const { stop } = looking;
  const forget = () => void (mine.running.get(written) === search && mine.running.delete(written));
  // Not spread: what it has found so far may come to be told by another. One that is stopped takes nobody in any more.
  const search: Search = Object.assign(looking, {
    ...begins,
    stop: () => {
      forget();
      stop();
    },
  });
  mine.running.set(written, search);
  search.found.then(forget, forget);
  return search;
}

/** Of so many records at most that have the words of an address each is looked at here. */
const MOST_NEAR = 2000;
const AT_ONCE = 200;

/** Looks at the records that the index of words leaves, where there are few of them; else at all. */
function narrowed(store: Store, address: Address, plan: FindPlan, everywhere: () => Looking): Looking {
  const own: SoFar = { ids: [], share: 0 };
  let [stopped, elsewhere]: [boolean, Looking | null] = [false, null];
  const look = async (): Promise<readonly number[]> => {
    const near = await recordsNear(store.aside, plan);
    if (near === null && !stopped) {
      elsewhere = everywhere();
      return elsewhere.found;
    }
    for (let at = 0; near && at < near.length && !stopped; at += AT_ONCE) {
      const held = await store.aside.readMany('record', near.slice(at, at + AT_ONCE));
      for (const { id, value } of held) if (hasAny(value, address)) own.ids.push(id);
      own.share = Math.min(1, (at + AT_ONCE) / near.length);
    }
    if (stopped) throw cancelled();
    return own.ids;
  };
  return {
    found: look(),
    get soFar() {
      return elsewhere?.soFar ?? own;
    },
    ...{ waiting: 0, asked: 0 },
    stop: () => {
      stopped = true;
      elsewhere?.stop();
    },
  };
}

/** The records that have the words of a plan; null where they are too many, or the index is being made anew. */
async function recordsNear(store: Store, plan: FindPlan): Promise<readonly number[] | null> {
  const match = matchOf(plan);
  if (match === null || (await oldRecordKeys(store)).index) return null;
  const near = await recordsMatching(store, match, MOST_NEAR + 1);
  return near.length > MOST_NEAR ? null : near;
}

function inProcess(script: string, work: AddressWork): Looking {
  const child = fork(script, {
    execArgv: ['--max-old-space-size=512'],
    env: { ...process.env, OSIER_ADDRESS_WORK: JSON.stringify(work) },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  const soFar: SoFar = { ids: [], share: 0 };
  const found = new Promise<readonly number[]>((resolve, reject) => {
    child.on('message', (m: AddressSaid) => {
      if ('end' in m) return resolve(soFar.ids);
      for (const id of m.ids) soFar.ids.push(id);
      soFar.share = m.share;
    });
    child.on('error', reject);
    child.on('exit', () => reject(new Error('The search ended without an answer.')));
  });
  return { found, soFar, waiting: 0, asked: 0, stop: () => void child.kill('SIGKILL') };
}

/** The same without a process, a piece at a time, for a store that was opened by itself. */
function besideOthers(store: Store, { tag }: AddressWork, address: Address): Looking {
  let stopped = false;
  const soFar: SoFar = { ids: [], share: 0 };
  const look = async (): Promise<readonly number[]> => {
    const { ids } = soFar;
    for (let after = 0; !stopped;) {
      const rows = await recordsWithText(store.aside, tag, after);
      for (const { id, value } of rows) if (hasAny(keptValue('record', value), address)) ids.push(id);
      if (rows.length < 200) break;
      after = rows.at(-1)!.id;
    }
    if (stopped) throw cancelled();
    return ids;
  };
  return { found: look(), soFar, waiting: 0, asked: 0, stop: () => void (stopped = true) };
}

/** Waits with the others; whoever leaves last ends the search. */
async function waitFor(search: Search, signal?: AbortSignal): Promise<readonly number[]> {
  search.waiting++;
  try {
    return await Promise.race([search.found, whenLeft(signal)]);
  } finally {
    search.waiting--;
    stopIfAlone(search);
  }
}

const cancelled = (): ProblemError => new ProblemError(499, 'The search was cancelled.');

/** Refuses one more search through all records beside so many. */
function refuseMany(running: number): void {
  if (running >= MOST)
    throw new ProblemError(
      503,
      'Other searches through all records are under way. Try again in a moment, or narrow this one by words.',
    );
}

/** Fails when somebody leaves. */
const whenLeft = (signal: AbortSignal | undefined): Promise<never> =>
  new Promise((_, reject) => {
    const leave = () => reject(cancelled());
    if (signal?.aborted) leave();
    else signal?.addEventListener('abort', leave, { once: true });
  });
