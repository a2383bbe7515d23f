import type {
  StocktakeBody,
  StocktakeRow,
  StretchBody,
  StretchReview,
  StretchReviewBody,
} from '@osier/contract';
import { creation } from '@osier/core/changes';
import { COPY_STATUSES, codeProblem } from '@osier/core/holdings';
import type { StoredObject } from '@osier/core/kinds';
import {
  branchesOf,
  locationsOf,
  shelfStatuses,
  type JumpAlarm,
  type Stocktake,
  rangeKeys,
} from '@osier/core/stocktake';
import type { Act } from '@osier/core/acts';
import { today } from '../day';
import type { LoansDesk } from '../loans/ports';
import { notFound, ProblemError, wrong, wrongFields } from '../http/problem';
import { inStretch, stocktakeStates } from '../projections/stocktakes';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { placeNameOf, placeNames } from './places';
import { barcodesInStretch, countStretch, isBeingClosed, overlapping } from './queries';

/** All stocktakes, the newest first, with how each stands. */
export async function listStocktakes({ store }: Services): Promise<StocktakeRow[]> {
  const states = new Map((await stocktakeStates(store)).map((s) => [s.stocktake, s]));
  const all = await store.find('stocktake', { order: [['id', 'DESC']] });
  const names = await placeNames(store);
  return all.map(({ id, version, value }) => {
    const { expected, found, scans, findings } = states.get(id) ?? NOTHING_YET;
    const placeName = placeNameOf(value, names);
    return { id, version, stocktake: asShown(value), expected, found, scans, findings, placeName };
  });
}
const NOTHING_YET = { expected: 0, found: 0, scans: 0, findings: null };

/** A stocktake as it is told, with what older ones do not say. */
export const asShown = ({
  orders = {},
  jump = { when: 'never' },
  scanners = [],
  skipRun: _,
  stretch,
  ...rest
}: Stocktake): StocktakeRow['stocktake'] => ({
  ...rest,
  stretch: { ...stretch, also: [...(stretch.also ?? [])], leftOut: [...(stretch.leftOut ?? [])] },
  ...{ orders, scanners },
  jump: {
    when: jump.when,
    by: jump.when === 'class' ? jump.difference : jump.when === 'copies' ? jump.number : 0,
  },
});

/** What is wrong with a stretch, beside its fields. */
async function stretchProblems(store: Store, body: StretchBody) {
  const lists = (await store.lists()).value;
  const here = lists.locations.filter((l) => branchesOf(body).includes(l.branch));
  const statuses = COPY_STATUSES.map((s) => ({ code: s, name: s }));
  const problems = [
    codeProblem('branch', 'branch', body.branch, lists.branches),
    ...body.also.map((b) => codeProblem('also', 'branch', b, lists.branches)),
    ...body.locations.map((l) => codeProblem('locations', 'location', l, here)),
    ...body.types.map((t) => codeProblem('types', 'type', t, lists.types)),
    ...body.leftOut.map((s) => codeProblem('leftOut', 'status', s, statuses)),
  ].filter((p) => p !== null);
  const { from, to } = rangeKeys(body, (await store.house()).value.prefixOrder);
  if (from !== null && to !== null && from > to && !from.startsWith(to))
    problems.push({ field: 'to', message: `${body.to} stands before ${body.from}.` });
  return problems;
}

/** About a stretch of more expected copies the loans desk is asked when its stocktake is started, not before. */
const MOST_ASKED_BEFORE = 5000;

/** What a stretch holds now. */
export async function reviewStretch(
  { store: { aside: store }, loans }: Services,
  body: StretchReviewBody,
): Promise<StretchReview> {
  const problems = await stretchProblems(store, body);
  if (problems.length) throw wrongFields(problems);
  const standing = new Set(shelfStatuses((await store.house()).value));
  const within = await inStretch(store, body);
  const rows = await countStretch(store, within, body.seenSince);
  const sum = (of: typeof rows) => of.reduce((n, r) => n + r.n, 0);
  const expected = rows.filter((r) => standing.has(r.status));
  return {
    copies: sum(rows),
    expected: sum(expected),
    seenSince: sum(expected.filter((r) => r.isSeen)),
    statuses: Object.fromEntries(
      [...new Set(rows.map((r) => r.status))]
        .filter((s) => !standing.has(s))
        .map((s) => [s, sum(rows.filter((r) => r.status === s))]),
    ),
    canAskLoans: loans.configured && sum(expected) <= MOST_ASKED_BEFORE,
    loans: body.askLoans && loans.configured ? await loansOf(store, loans, body, sum(expected)) : null,
    overlaps: await overlapping(store, within),
  };
}

/** How many of the expected copies of a stretch are on loan, and of how many the loans desk says nothing. */
async function loansOf(
  store: Store,
  loans: LoansDesk,
  stretch: StretchBody,
  expected: number,
): Promise<NonNullable<StretchReview['loans']>> {
  if (expected > MOST_ASKED_BEFORE)
    throw wrong(
      'askLoans',
      `The loans desk is asked about up to ${MOST_ASKED_BEFORE.toLocaleString('en-GB')} copies before the start.`,
    );
  const statuses = shelfStatuses((await store.house()).value);
  const codes = await barcodesInStretch(store, await inStretch(store, stretch), statuses, MOST_ASKED_BEFORE);
  const said = await loans.ask(codes);
  const states = codes.map((code) => said.of(code).state);
  const howMany = (of: string) => states.filter((s) => s === of).length;
  return { onLoan: howMany('on loan'), notKnown: howMany('not known') };
}

/** Starts a stocktake of a stretch. */
export const startStocktake = (
  { store }: Services,
  person: number,
  { name, seenSince, order, orders, jumpWhen, jumpBy, scanners, ...stretch }: StocktakeBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const problems = await stretchProblems(s, { ...stretch, seenSince });
    const here = locationsOf({ ...stretch, locations: [] }, (await s.lists()).value.locations);
    problems.push(...orders.flatMap((o) => codeProblem('orders', 'location', o.location, here) ?? []));
    if (problems.length) throw wrongFields(problems);
    const jump: JumpAlarm =
      jumpWhen === 'never'
        ? { when: 'never' }
        : jumpWhen === 'class'
          ? { when: 'class', difference: jumpBy }
          : { when: 'copies', number: Math.round(jumpBy) };
    const value: Stocktake = {
      ...{ name, stretch, state: 'open', startedOn: today(), closedOn: '', seenSince, jump, scanners },
      orders: {
        ...Object.fromEntries(here.map((l) => [l.code, order])),
        ...Object.fromEntries(orders.map((o) => [o.location, o.order])),
      },
      skipRun: (await s.house()).value.jumpLength,
    };
    const id = await s.nextIds('stocktake', 1);
    const did: Act = { act: 'start-stocktake', names: { stocktake: name } };
    return { did, id, changes: [creation('stocktake', id, value)] };
  });

/** A stocktake that is open; one that is closed is refused. */
export async function openStocktake(store: Store, id: number): Promise<StoredObject<'stocktake'>> {
  const stocktake = await store.read('stocktake', id);
  if (!stocktake) throw notFound(`Stocktake ${id}`);
  // One whose closing was stopped is open.
  if (stocktake.value.state === 'closing' && (await isBeingClosed(store, id)))
    throw wrong('stocktake', 'This stocktake is being closed.');
  if (stocktake.value.state === 'closed') throw wrong('stocktake', 'This stocktake is closed.');
  return stocktake;
}

/** Why a person may not scan in a stocktake, which may be for some people only; null when they may. */
export const mayScan = (
  { value: { scanners = [] } }: StoredObject<'stocktake'>,
  person: number,
): ProblemError | null =>
  scanners.length && !scanners.includes(person)
    ? new ProblemError(403, 'This stocktake is scanned by others. The head says by whom.')
    : null;

/** A stocktake that is open, for a person who may scan in it. */
export async function stocktakeToScan(
  store: Store,
  id: number,
  person: number,
): Promise<StoredObject<'stocktake'>> {
  const stocktake = await openStocktake(store, id);
  const no = mayScan(stocktake, person);
  if (no) throw no;
  return stocktake;
}
