import { hasAny, isAddress, parseAddress, type Address } from '@osier/core/address';
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ProblemError } from '../http/problem';
import type { Store } from '../store/store';
import { keptValue } from '../store/kept-json';
import { recordsWithText } from './queries';
import type { AddressWork } from './address-process';

/** A search by address under way, for all that ask for it meanwhile. */
interface Search {
  readonly found: Promise<readonly number[]>;
  waiting: number;
  stop(): void;
}
interface Kept {
  readonly at: number;
  readonly ids: readonly number[];
}
/** Answers good until something is written, and searches under way, of each store. */
interface Known {
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
  const address = parseAddress(written);
  if (!isAddress(address)) return [];
  const mine = known.get(store) ?? { answers: new Map<string, Kept>(), running: new Map<string, Search>() };
  known.set(store, mine);
  const at = store.writes();
  const before = mine.answers.get(written);
  if (before?.at === at) return before.ids;
  const search = mine.running.get(written) ?? begun(store, mine, written, address);
  const ids = await waitFor(search, signal);
  mine.answers.delete(written);
  mine.answers.set(written, { at, ids });
  for (const old of [...mine.answers.keys()].slice(0, Math.max(0, mine.answers.size - KEPT)))
    mine.answers.delete(old);
  return ids;
}

function begun(store: Store, mine: Known, written: string, address: Address): Search {
  if (mine.running.size >= MOST)
    throw new ProblemError(
      503,
      'Other searches through all records are under way. Try again in a moment, or narrow this one by words.',
    );
  const tag = /^[0-9]{3}$/.test(address.tag) ? `"tag":"${address.tag}"` : '';
  const work: AddressWork = { file: store.file, address: written, tag };
  const search =
    store.workers === null
      ? besideOthers(store, work, address)
      : inProcess(join(store.workers, 'address-process.mjs'), work);
  mine.running.set(written, search);
  const ended = () => void mine.running.delete(written);
  search.found.then(ended, ended);
  return search;
}

function inProcess(script: string, work: AddressWork): Search {
  const child = fork(script, {
    execArgv: ['--max-old-space-size=512'],
    env: { ...process.env, OSIER_ADDRESS_WORK: JSON.stringify(work) },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  const found = new Promise<readonly number[]>((resolve, reject) => {
    const ids: number[] = [];
    child.on('message', (m: { ids?: number[]; end?: true }) => {
      if (m.ids) for (const id of m.ids) ids.push(id);
      if (m.end) resolve(ids);
    });
    child.on('error', reject);
    child.on('exit', () => reject(new Error('The search ended without an answer.')));
  });
  return { found, waiting: 0, stop: () => void child.kill('SIGKILL') };
}

/** The same without a process, a piece at a time, for a store that was opened by itself. */
function besideOthers(store: Store, { tag }: AddressWork, address: Address): Search {
  let stopped = false;
  const look = async (): Promise<readonly number[]> => {
    const ids: number[] = [];
    for (let after = 0; !stopped;) {
      const rows = await recordsWithText(store.aside, tag, after);
      for (const { id, value } of rows) if (hasAny(keptValue('record', value), address)) ids.push(id);
      if (rows.length < 200) break;
      after = rows.at(-1)!.id;
    }
    return ids;
  };
  return { found: look(), waiting: 0, stop: () => void (stopped = true) };
}

/** Waits with the others; whoever leaves last ends the search. */
async function waitFor(search: Search, signal?: AbortSignal): Promise<readonly number[]> {
  search.waiting++;
  let leave: () => void = () => undefined;
  const left = new Promise<never>((_, reject) => {
    leave = () => reject(new ProblemError(499, 'The search was cancelled.'));
    if (signal?.aborted) leave();
    else signal?.addEventListener('abort', leave);
  });
  try {
    return await Promise.race([search.found, left]);
  } finally {
    signal?.removeEventListener('abort', leave);
    if (--search.waiting === 0) search.stop();
  }
}
