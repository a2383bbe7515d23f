import {
  MOST_FOUND_FOR_A_LIST,
  type CopySearch,
  type FillListBody,
  type WeedBody,
  type WithdrawalRow,
} from '@osier/contract';
import { copiesFound } from '../copies/list';
import { copiesOnShelf } from '../copies/queries.list';
import { barcodesOfPile } from '../piles/queries';
import { notFound, wrong } from '../http/problem';
import { askSoon } from '../loans/ask-soon';
import { addScans, removeScan, scansOf } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { missingCopies } from '../projections/stocktake-views';
import { lastScanBy } from './queries';
import { weedCandidates } from './queries.weeding';
import { TO_PULL } from './to-pull';
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

/** Adds the copies that lie on a pile, that are found, that a stocktake misses, or that are candidates of a shelf, but those that are on the list already. They are to be pulled. */
export async function fillList(
  { store }: Services,
  person: number,
  id: number,
  body: FillListBody,
): Promise<{ added: number }> {
  const found = await codesFor(store, body);
  const listed = new Set((await scansOf(store, 'withdrawal', id)).map((s) => s.code));
  const raw = found.filter((code) => !listed.has(code));
  const check = async (inside: Store) => void (await openList(inside, id));
  const from = { device: TO_PULL, run: new Date().toISOString(), number: 0 };
  const added = await addScans(store, { purpose: 'withdrawal', work: id, person, raw, from, check });
  return { added: added.fresh };
}

function codesFor(store: Store, { pile, found, stocktake, weed }: FillListBody): Promise<readonly string[]> {
  if (weed) return candidatesOf(store.aside, weed);
  if (found) return foundBy(store.aside, found);
  return pile === undefined ? missingOf(store, stocktake ?? 0) : onPile(store, pile);
}

async function foundBy(store: Store, search: CopySearch): Promise<readonly string[]> {
  const copies = await copiesOnShelf(store, await copiesFound(store, search), MOST_FOUND_FOR_A_LIST + 1);
  const codes = copies.map((c) => c.barcode).filter(Boolean);
  if (codes.length === 0) throw wrong('found', 'The search finds no copy with a barcode.');
  if (copies.length > MOST_FOUND_FOR_A_LIST)
    throw wrong('found', 'At most 5,000 copies go on a list at once; narrow the search.');
  return codes;
}

async function onPile(store: Store, pile: number): Promise<readonly string[]> {
  if (!(await store.read('pile', pile))) throw notFound(`Pile ${pile}`);
  const codes = await barcodesOfPile(store, pile);
  if (codes.length === 0) throw wrong('pile', 'There is no copy on this pile.');
  return codes;
}

async function candidatesOf(store: Store, weed: WeedBody): Promise<readonly string[]> {
  const codes = await weedCandidates(store, weed);
  if (codes.length === 0) throw wrong('weed', 'No copy of this shelf is a candidate.');
  return codes;
}

async function missingOf(store: Store, stocktake: number): Promise<readonly string[]> {
  if (!(await store.read('stocktake', stocktake))) throw notFound(`Stocktake ${stocktake}`);
  const codes = await missingCopies(store, stocktake);
  if (codes.length === 0) throw wrong('stocktake', 'This stocktake misses no copy.');
  return codes;
}

/** Takes a row off a list; of a copy that was to be pulled, its scan as well. */
export async function removeRow({ store }: Services, id: number, scan: number): Promise<{ removed: number }> {
  await openList(store, id);
  const all = await scansOf(store, 'withdrawal', id);
  const row = all.find((s) => s.id === scan);
  const gone = row?.device === TO_PULL ? all.filter((s) => s.code === row.code).map((s) => s.id) : [scan];
  for (const one of gone) await removeScan(store, 'withdrawal', id, one);
  return { removed: 1 };
}
