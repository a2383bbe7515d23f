import type { Review, StocktakeBody, StocktakeDetail, StocktakeRow } from '@osier/contract';
import { cleanScan, groupedBarcode } from '@osier/core/barcodes';
import { counted, creation, update, type Versioned } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { codeProblem, type Copy } from '@osier/core/holdings';
import {
  reconcile,
  settlePlan,
  type Reconciliation,
  type ScanBatch,
  type Settlement,
  type SettleItem,
  type ShelfCopy,
  type Stocktake,
} from '@osier/core/stocktake';
import { quoted } from '../daybook/sentences';
import { tellConflicts } from '../daybook/tell-conflicts';
import { notFound, ProblemError, wrong, wrongFields } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import { scansOf } from '../scanner/scans';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';

const today = () => new Date().toISOString().slice(0, 10);

/** Starts a stocktake of a stretch. */
export const startStocktake = (
  { store }: Services,
  person: number,
  body: StocktakeBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const lists = (await s.lists()).value;
    const here = lists.locations.filter((l) => l.branch === body.branch);
    const problems = [
      codeProblem('branch', 'branch', body.branch, lists.branches),
      ...body.locations.map((l) => codeProblem('locations', 'location', l, here)),
      ...body.types.map((t) => codeProblem('types', 'type', t, lists.types)),
    ].filter((p) => p !== null);
    if (problems.length) throw wrongFields(problems);
    const { name, seenSince, ...stretch } = body;
    const value: Stocktake = { name, stretch, state: 'open', startedOn: today(), closedOn: '', seenSince };
    const id = await s.nextIds('stocktake', 1);
    const sentence = `Started the stocktake ${quoted(name)}`;
    return { act: 'start-stocktake', id, sentence, changes: [creation('stocktake', id, value)] };
  });

export async function openStocktake(store: Store, id: number): Promise<StoredObject<'stocktake'>> {
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  if (stocktake.value.state === 'closed') throw wrong('stocktake', 'This stocktake is closed.');
  return stocktake;
}

/** Loads a scanner's file: one entry in the daybook, which can be taken back. */
export const loadScans = (
  services: Services,
  person: number,
  id: number,
  name: string,
  raw: readonly string[],
): Promise<{ entry: number; sentence: string }> =>
  loadCodes(services, person, id, name, raw.map(cleanScan).filter(Boolean));

/** The same for codes that are clean; `also` is done in the transaction that keeps them. */
export const loadCodes = (
  { store }: Services,
  person: number,
  id: number,
  name: string,
  codes: readonly string[],
  also?: (tx: Transaction, entry: number | null) => Promise<void>,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const stocktake = await openStocktake(s, id);
    if (codes.length === 0) throw wrong('codes', 'There is no barcode in this file.');
    const batch: ScanBatch = { stocktake: id, name, on: today(), codes };
    const sentence = `Loaded ${counted(codes.length, 'scan')} from ${quoted(name)} into ${quoted(stocktake.value.name)}`;
    const changes = [creation('scanbatch', await s.nextIds('scanbatch', 1), batch)];
    return { act: 'load-scans', sentence, changes, ...(also && { also }) };
  });

interface ShelfRow {
  copyId: number;
  barcode: string;
  status: string;
  type: string;
  lastSeen: string;
  branch: string;
  location: string;
  callNumber: string;
  shelfKey: string;
  recordId: number;
  title: string;
}
const SHELF = `SELECT c.id AS copyId, c.barcode, c.status, c.type, c.last_seen AS lastSeen, h.branch, h.location, h.call_number AS callNumber, h.shelf_key AS shelfKey, r.id AS recordId, r.title
  FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record`;
const AT_ONCE = 5000;

/** All codes scanned for a stocktake, loaded files first, then scans as they came. */
async function codesOf(store: Store, id: number): Promise<string[]> {
  const batches = await store.select('scanbatch', 'stocktake = :id ORDER BY id', { id });
  const live = await scansOf(store, 'stocktake', id);
  return [...batches.flatMap((b) => b.value.codes), ...live.map((s) => s.code)];
}

/** The copies of a stocktake: those at its branch, and those that were scanned; with what of the scans was withdrawn. */
async function shelfOf(store: Store, { id, value }: StoredObject<'stocktake'>) {
  const codes = await codesOf(store, id);
  const rows = await store.rows<ShelfRow>(`${SHELF} WHERE h.branch = :branch`, {
    branch: value.stretch.branch,
  });
  const here = new Set(rows.map((r) => r.barcode));
  const others = [...new Set(codes)].filter((c) => !here.has(c));
  const withdrawn = new Map<string, string>();
  for (let at = 0; at < others.length; at += AT_ONCE) {
    const part = others.slice(at, at + AT_ONCE);
    rows.push(...(await store.rows<ShelfRow>(`${SHELF} WHERE c.barcode IN (:part)`, { part })));
    for (const w of await store.select('withdrawn', 'barcode IN (:part)', { part }))
      withdrawn.set(w.value.copy.barcode, w.value.withdrawnOn);
  }
  return { codes, rows, withdrawn };
}

/** What the loans desk says of the copies of a stocktake. Slow, so that it is asked before anything is planned. */
async function askLoans(
  { store, loans }: Services,
  stocktake: StoredObject<'stocktake'>,
): Promise<LoanAnswers> {
  const { rows } = await shelfOf(store, stocktake);
  return loans.ask(rows.map((r) => r.barcode));
}

async function result(
  store: Store,
  stocktake: StoredObject<'stocktake'>,
  said: LoanAnswers,
): Promise<{ result: Reconciliation; loansDesk: boolean }> {
  const { stretch, seenSince } = stocktake.value;
  const { codes, rows, withdrawn } = await shelfOf(store, stocktake);
  const lists = (await store.lists()).value;
  const copies = rows.map((r): ShelfCopy => ({ ...r, onLoan: said.of(r.barcode).state === 'on loan' }));
  return {
    loansDesk: said.heard,
    result: reconcile(stretch, copies, codes, withdrawn, {
      jumpLength: (await store.house()).value.jumpLength,
      seenSince,
      branchName: (code) => lists.branches.find((b) => b.code === code)?.name ?? code,
      locationName: (code) => lists.locations.find((l) => l.code === code)?.name ?? code,
    }),
  };
}

const rowOf = (s: StoredObject<'stocktake'>, r: Reconciliation): StocktakeRow => ({
  id: s.id,
  version: s.version,
  stocktake: s.value,
  expected: r.expected,
  found: r.found,
  scans: r.scans,
  findings: r.findings.length,
});

export async function listStocktakes(services: Services): Promise<StocktakeRow[]> {
  const all = await services.store.select('stocktake', '1 ORDER BY id DESC');
  return Promise.all(
    all.map(async (s) => rowOf(s, (await result(services.store, s, await askLoans(services, s))).result)),
  );
}

export async function stocktakeDetail(services: Services, id: number): Promise<StocktakeDetail> {
  const stocktake = await services.store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  const said = await askLoans(services, stocktake);
  const { result: r, loansDesk } = await result(services.store, stocktake, said);
  const lists = (await services.store.lists()).value;
  const { stretch } = stocktake.value;
  const names = [
    lists.branches.find((b) => b.code === stretch.branch)?.name ?? stretch.branch,
    ...stretch.locations.map((l) => lists.locations.find((x) => x.code === l)?.name ?? l),
    ...(stretch.from || stretch.to
      ? [`${stretch.from || 'the beginning'} to ${stretch.to || 'the end'}`]
      : []),
  ];
  return { ...rowOf(stocktake, r), result: r, loansDesk, placeName: names.join(', ') };
}

interface ToSettle {
  readonly copy: number;
  readonly act: Settlement;
}

/** Plans settling; a finding that is no longer one (somebody else settled it) is refused by name. */
async function plan(
  store: Store,
  id: number,
  asked: readonly ToSettle[],
  location: string,
  said: LoanAnswers,
  nextHoldingId: () => number,
) {
  const wanted = [...new Map(asked.map((w) => [`${w.copy} ${w.act}`, w])).values()];
  const stocktake = await openStocktake(store, id);
  const { result: r } = await result(store, stocktake, said);
  const findings = new Map(
    r.findings.flatMap((f) => f.settlements.map((act) => [`${f.copy?.copyId} ${act}`, f] as const)),
  );
  const of = (w: ToSettle) => findings.get(`${w.copy} ${w.act}`);
  const stale = wanted.find((w) => !of(w));
  if (stale) throw await settledSince(store, stale);
  const { stretch } = stocktake.value;
  const target = location || stretch.locations[0] || '';
  if (wanted.some((w) => w.act === 'correct-location')) {
    const places = (await store.lists()).value.locations.filter((l) => l.branch === stretch.branch);
    const problem = codeProblem('location', 'location', target, places);
    if (problem) throw wrongFields([problem]);
  }
  const copies = new Map(
    (
      await store.readMany(
        'copy',
        wanted.map((w) => w.copy),
      )
    ).map((c) => [c.id, c]),
  );
  const holdingIds = [...new Set([...copies.values()].map((c) => c.value.holding))];
  const holdings = new Map((await store.readMany('holding', holdingIds)).map((h) => [h.id, h]));
  const records = [...new Set([...holdings.values()].map((h) => h.value.record))];
  const siblings = await store.select('holding', 'record IN (:records)', { records });
  const counts = new Map(
    (
      await store.rows<{ holding: number; n: number }>(
        'SELECT holding, COUNT(*) AS n FROM copies WHERE holding IN (:holdingIds) GROUP BY holding',
        { holdingIds },
      )
    ).map((c) => [c.holding, c.n]),
  );
  const items = wanted.map(({ copy: copyId, act }): SettleItem => {
    const copy = copies.get(copyId)!;
    const holding = holdings.get(copy.value.holding)!;
    return {
      act,
      copy,
      holding,
      siblings: siblings.filter((s) => s.value.record === holding.value.record),
      copiesAtHolding: counts.get(holding.id) ?? 1,
    };
  });
  const changes = settlePlan(items, { on: today(), branch: stretch.branch, location: target, nextHoldingId });
  return { stocktake, changes, items, target, findings: wanted.map((w) => of(w)!) };
}

/** Somebody else may have settled a finding: says who did what with the copy. */
async function settledSince(store: Store, { copy, act }: ToSettle): Promise<ProblemError> {
  const [held] = await store.readMany('copy', [copy]);
  const conflicts = await tellConflicts(
    { store },
    [{ kind: 'copy', id: copy, expected: null, found: held?.value ?? null }],
    0,
  );
  return new ProblemError(
    409,
    `Copy ${held ? groupedBarcode(held.value.barcode) : copy} is not a finding that “${act}” settles (any more). ${conflicts[0]!.message}`,
    { conflicts, fields: [{ field: 'items', message: conflicts[0]!.message }] },
  );
}

const DONE: Record<Settlement, string> = {
  'mark-missing': 'marked missing',
  'mark-found': 'marked found',
  'correct-location': 'given the right location',
};
const tally = (wanted: readonly { readonly act: Settlement }[]) =>
  (Object.keys(DONE) as Settlement[])
    .map((a) => [wanted.filter((w) => w.act === a).length, DONE[a]] as const)
    .filter(([n]) => n > 0)
    .map(([n, text]) => `${n} ${text}`)
    .join(', ');

/** Status and place of a copy, in words. */
const standing = (status: string, location: string) => `${status}, ${location}`;

function afterOf(changes: ChangeSet, item: SettleItem, target: string): string {
  const copy = changes.find((c) => c.kind === 'copy' && c.id === item.copy.id)?.after as Copy;
  return standing(copy.status, copy.holding === item.holding.id ? item.holding.value.location : target);
}

export async function reviewSettle(
  services: Services,
  id: number,
  wanted: readonly ToSettle[],
  location: string,
): Promise<Review> {
  let next = 0;
  const said = await askLoans(services, await openStocktake(services.store, id));
  const { changes, items, findings, target } = await plan(
    services.store,
    id,
    wanted,
    location,
    said,
    () => --next,
  );
  return {
    sentence: `${counted(wanted.length, 'finding')} will be settled: ${tally(wanted)}.`,
    verb: `Settle ${counted(wanted.length, 'finding')}`,
    count: wanted.length,
    consequences: findings.some((f) => f.copy!.status === 'lost')
      ? ['A copy recorded lost is found again: a reader may have been billed for it.']
      : [],
    rows: items.map((item, i) => ({
      id: item.copy.id,
      label: findings[i]!.copy!.title,
      detail: `${findings[i]!.copy!.callNumber} · ${groupedBarcode(item.copy.value.barcode)}`,
      exception: item.copy.value.status === 'lost' ? findings[i]!.message : null,
      before: { text: standing(item.copy.value.status, item.holding.value.location) },
      after: { text: afterOf(changes, item, target) },
      canLeaveOut: true,
    })),
    more: 0,
  };
}

/** Settles findings; one that somebody settled meanwhile refuses all of them by name. */
export async function settle(
  services: Services,
  person: number,
  id: number,
  wanted: readonly ToSettle[],
  location: string,
): Promise<{ entry: number; sentence: string }> {
  const said = await askLoans(services, await openStocktake(services.store, id));
  return commitPlan(services.store, person, async (store) => {
    let next = await store.nextIds('holding', wanted.length);
    const { stocktake, changes, items } = await plan(store, id, wanted, location, said, () => next++);
    const sentence = `Settled ${counted(items.length, 'finding')} of ${quoted(stocktake.value.name)}: ${tally(items)}`;
    return { act: 'settle', sentence, changes };
  });
}

/** Closes a stocktake: every copy found gets today as the day it was last seen. */
export async function closeStocktake(
  services: Services,
  person: number,
  id: number,
): Promise<{ entry: number; sentence: string }> {
  const said = await askLoans(services, await openStocktake(services.store, id));
  return commitPlan(services.store, person, async (store) => {
    const stocktake = await openStocktake(store, id);
    const { result: r } = await result(store, stocktake, said);
    const codes = [...new Set(await codesOf(store, id))];
    const seen: StoredObject<'copy'>[] = [];
    for (let at = 0; at < codes.length; at += AT_ONCE)
      seen.push(
        ...(await store.select('copy', 'barcode IN (:part)', { part: codes.slice(at, at + AT_ONCE) })),
      );
    const sentence = `Closed the stocktake ${quoted(stocktake.value.name)}: ${r.found} of ${r.expected} found, ${counted(r.findings.length, 'finding')} left`;
    const changes = [
      ...seen.map((c) => update('copy', c, { ...c.value, lastSeen: today() })),
      update('stocktake', stocktake, {
        ...stocktake.value,
        state: 'closed',
        closedOn: today(),
      }),
    ];
    return { act: 'close-stocktake', sentence, changes };
  });
}
