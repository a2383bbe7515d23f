import { LAST_PRINT, type LabelsBody } from '@osier/contract';
import type { Store } from '../store/store';
import { lastEntry } from '../store/entries-since';
import { entryBefore } from './queries';

/** Who has printed nothing yet begins with what was made in so many days. */
const FIRST_DAYS = 7;

/** From where on copies count as made since, and up to where a print of them goes. */
export interface Since {
  readonly after: number;
  readonly upTo: number;
  /** ISO date and time. */
  readonly at: string;
}

/** Since when somebody wants labels of what he has made: an instant, or the last print of labels of the kind; null where it is not asked. */
export async function sinceOf(
  store: Store,
  person: number,
  { since, kind }: Pick<LabelsBody, 'since' | 'kind'>,
): Promise<Since | null> {
  if (since === undefined) return null;
  const upTo = await lastWholeEntry(store, person);
  if (since === LAST_PRINT) {
    const last = (await store.table('label_prints').find({ where: { person, kind } }))[0];
    if (last) return { after: last.entry, upTo, at: last.at };
  }
  const begin = since === LAST_PRINT ? Date.now() - FIRST_DAYS * 86_400_000 : Date.parse(since);
  const at = new Date(begin).toISOString();
  return { after: await entryBefore(store, at), upTo, at };
}

/** The last entry before those that a job of somebody still adds to: its copies are printed when it has made all of them. */
async function lastWholeEntry(store: Store, person: number): Promise<number> {
  const running = await store.table('jobs').find({ where: { person, state: ['running', 'waiting'] } });
  const open = running.flatMap((job) => job.entry ?? []);
  return open.length ? Math.min(...open) - 1 : lastEntry(store);
}

/** Keeps up to where somebody has printed labels of a kind. What this print did not go up to is printed the next time. */
export const keepPrint = (
  store: Store,
  person: number,
  kind: LabelsBody['kind'],
  { upTo: entry }: Since,
): Promise<void> =>
  store.write(async (tx) => {
    const at = new Date().toISOString();
    const prints = store.table('label_prints');
    if ((await prints.update({ entry, at }, { person, kind }, tx)) === 0)
      await prints.insert({ person, kind, entry, at }, tx);
  });
