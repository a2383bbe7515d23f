import type { WithdrawalRow } from '@osier/contract';
import { barcodesOfPile } from '../piles/queries';
import { notFound, wrong } from '../http/problem';
import { askSoon } from '../loans/ask-soon';
import { addScans, removeScan } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { lastScanBy } from './queries';
import { weighFew } from './weighed';
import { openList } from './lists';

/** Verdicts of one answer. */
const ANSWERED = 20;

/** Adds scans to a list, and says what each of the last few is: only they are weighed, with what the list has of their titles. */
export async function scanIntoList(
  { store, loans }: Services,
  person: number,
  id: number,
  raw: readonly string[],
): Promise<{ added: number; verdicts: WithdrawalRow[] }> {
  const check = async (inside: Store) => void (await openList(inside, id));
  const added = await addScans(store, { purpose: 'withdrawal', work: id, person, raw, from: null, check });
  const codes = [...new Set(added.codes.slice(-ANSWERED))];
  const said = await askSoon(loans, codes);
  return { added: added.fresh, verdicts: await weighFew(store, await openList(store, id), codes, said) };
}

/** Takes a person's own last scan of a list away; null when there is none. */
export async function undoLastScan(
  { store }: Services,
  person: number,
  id: number,
): Promise<{ code: string | null }> {
  await openList(store, id);
  const last = await lastScanBy(store, id, person);
  if (!last) return { code: null };
  await removeScan(store, 'withdrawal', id, last.id);
  return { code: last.code };
}

/** Adds the copies that lie on a pile. */
export async function fillFromPile(
  { store }: Services,
  person: number,
  id: number,
  pile: number,
): Promise<{ added: number }> {
  if (!(await store.read('pile', pile))) throw notFound(`Pile ${pile}`);
  const raw = await barcodesOfPile(store, pile);
  if (raw.length === 0) throw wrong('pile', 'There is no copy on this pile.');
  const check = async (inside: Store) => void (await openList(inside, id));
  const added = await addScans(store, { purpose: 'withdrawal', work: id, person, raw, from: null, check });
  return { added: added.fresh };
}
