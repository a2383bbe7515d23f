import type { RegisterRow, Review, WithdrawalList, WithdrawalListRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, creation, update, type Versioned } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { codeProblem, dueOf, type Withdrawn } from '@osier/core/holdings';
import {
  weigh,
  withdrawalPlan,
  type Candidate,
  type CopyCounts,
  type Listed,
  type TitleStock,
  type Verdict,
  type WithdrawalListValue,
} from '@osier/core/withdrawals';
import { nearBarcodes } from '../catalogue/search';
import { quoted } from '../daybook/sentences';
import { notFound, ProblemError, wrong, wrongFields } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import { scansOf } from '../scanner/scans';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { contentNumber } from '../store/entry-parts';
import { keptValue } from '../store/kept-json';
import type { Store } from '../store/store';

const today = () => new Date().toISOString().slice(0, 10);

export async function listWithdrawals({ store }: Services): Promise<WithdrawalListRow[]> {
  const lists = await store.select('withdrawlist', '1 ORDER BY id DESC');
  const counts = new Map(
    (
      await store.rows<{ work: number; n: number }>(
        "SELECT work, COUNT(*) AS n FROM scans WHERE purpose = 'withdrawal' GROUP BY work",
      )
    ).map((r) => [r.work, r.n]),
  );
  return lists.map((l) => ({ id: l.id, ...l.value, codes: counts.get(l.id) ?? 0 }));
}

/** Starts a withdrawal list. */
export const startList = (
  { store }: Services,
  person: { id: number; name: string },
  body: { name: string; branch: string; reason: string },
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const problem = codeProblem('branch', 'branch', body.branch, (await s.lists()).value.branches);
    if (problem) throw wrongFields([problem]);
    const { name } = body;
    const [same] = await s.select('withdrawlist', "state = 'open' AND name = :name COLLATE NOCASE LIMIT 1", {
      name,
    });
    if (same) throw wrong('name', `There is an open list ${quoted(same.value.name)} already.`);
    const id = await s.nextIds('withdrawlist', 1);
    const value: WithdrawalListValue = { ...body, state: 'open', by: person.name, madeOn: today() };
    const sentence = `Started the withdrawal list ${quoted(name)}`;
    return { act: 'start-list', id, sentence, changes: [creation('withdrawlist', id, value)] };
  });

/** A list that can be worked on; one that is done is refused. */
export async function openList(store: Store, id: number): Promise<StoredObject<'withdrawlist'>> {
  const list = await store.read('withdrawlist', id);
  if (!list) throw notFound(`Withdrawal list ${id}`);
  if (list.value.state === 'done') throw wrong('list', 'This list is done. Start a new one.');
  return list;
}

interface CopyFacts {
  copyId: number;
  holdingId: number;
  recordId: number;
  barcode: string;
  title: string;
  branch: string;
  location: string;
  status: string;
  callNumber: string;
}
const FACTS = `SELECT c.id AS copyId, c.barcode, c.status, h.id AS holdingId, h.branch, h.location, h.call_number AS callNumber, r.id AS recordId, r.title
  FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record`;

/** What the loans desk says of the copies on a list, and of these. Slow, so that it is asked before anything is planned. */
async function askLoans(
  { store, loans }: Services,
  list: number,
  how: { anew: boolean },
): Promise<LoanAnswers> {
  const barcodes = await store.rows<{ barcode: string }>(
    "SELECT DISTINCT c.barcode FROM scans s JOIN copies c ON c.barcode = s.code WHERE s.purpose = 'withdrawal' AND s.work = :list",
    { list },
  );
  return loans.ask(
    barcodes.map((b) => b.barcode),
    how,
  );
}

/** The list with its verdicts as of now. */
export async function withdrawalList(services: Services, id: number): Promise<WithdrawalList> {
  return weighed(services.store, id, await askLoans(services, id, { anew: false }));
}

const MOST_HINTS = 50;

async function weighed(store: Store, id: number, said: LoanAnswers): Promise<WithdrawalList> {
  const list = await store.read('withdrawlist', id);
  if (!list) throw notFound(`Withdrawal list ${id}`);
  const scans = await scansOf(store, 'withdrawal', id);
  const codes = [...new Set(scans.map((s) => s.code))];
  const facts = new Map(
    (codes.length ? await store.rows<CopyFacts>(`${FACTS} WHERE c.barcode IN (:codes)`, { codes }) : []).map(
      (f) => [f.barcode, f],
    ),
  );
  const gone = new Map(
    (codes.length ? await store.select('withdrawn', 'barcode IN (:codes)', { codes }) : []).map((w) => [
      w.value.copy.barcode,
      w.value,
    ]),
  );
  const counts = await copyCounts(store, [...new Set([...facts.values()].map((f) => f.recordId))]);
  const lists = (await store.lists()).value;
  // A list of nothing but unknown codes is the wrong file: near ones are looked for only for the first of them.
  let hints = MOST_HINTS;
  const listed = await Promise.all(
    scans.map(async ({ code }): Promise<Listed> => {
      const f = facts.get(code);
      if (f) return { code, candidate: { ...f, due: dueOf(said.of(code)), loan: said.of(code).state } };
      const before = gone.get(code);
      if (before)
        return {
          code,
          candidate: null,
          withdrawnBefore: true,
          hint: `Withdrawn on ${before.withdrawnOn}: ${quoted(before.title)}.`,
        };
      const near = hints-- > 0 ? await nearBarcodes(store, code) : [];
      return {
        code,
        candidate: null,
        hint: near.length
          ? `Nearly the same: ${near.slice(0, 3).map(groupedBarcode).join(', ')}.`
          : undefined,
      };
    }),
  );
  const branchName = (code: string) => lists.branches.find((b) => b.code === code)?.name ?? code;
  const verdicts = weigh(listed, list.value.branch, (c) => counts(c), branchName);
  const place = (f: CopyFacts | undefined) =>
    f
      ? `${branchName(f.branch)}, ${lists.locations.find((l) => l.code === f.location)?.name ?? f.location}`
      : '';
  return {
    id,
    version: list.version,
    ...list.value,
    codes: scans.length,
    loansDesk: said.heard,
    verdicts: verdicts.map((v, i) => ({
      ...v,
      scan: scans[i]!.id,
      callNumber: facts.get(v.code)?.callNumber ?? '',
      place: place(facts.get(v.code)),
    })),
  };
}

async function copyCounts(store: Store, records: readonly number[]): Promise<(c: Candidate) => CopyCounts> {
  const rows = records.length
    ? await store.rows<{ record: number; branch: string }>(
        'SELECT h.record, h.branch FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.record IN (:records)',
        { records },
      )
    : [];
  return (c) => {
    const all = rows.filter((r) => r.record === c.recordId);
    return {
      anywhere: all.length,
      atBranch: all.filter((r) => r.branch === c.branch).length,
    };
  };
}

/** The titles of these copies with all their holdings and copies. */
async function stockOf(store: Store, copies: readonly number[]): Promise<TitleStock[]> {
  const rows = await store.rows<{ record: number }>(
    'SELECT DISTINCT h.record FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.id IN (:copies)',
    { copies },
  );
  const ids = rows.map((r) => r.record);
  if (ids.length === 0) return [];
  const records = await store.readMany('record', ids);
  const titles = new Map(
    (
      await store.rows<{ id: number; title: string }>('SELECT id, title FROM records WHERE id IN (:ids)', {
        ids,
      })
    ).map((r) => [r.id, r.title]),
  );
  const holdings = await store.select('holding', 'record IN (:ids)', { ids });
  const all = await store.select('copy', 'holding IN (SELECT id FROM holdings WHERE record IN (:ids))', {
    ids,
  });
  return records.map((record) => {
    const own = holdings.filter((h) => h.value.record === record.id);
    return {
      record,
      title: titles.get(record.id)!,
      holdings: own,
      copies: all.filter((c) => own.some((h) => h.id === c.value.holding)),
    };
  });
}

/** Plans the withdrawal of chosen copies of a list. Stopped copies are refused here, whatever the screen shows. */
async function plan(
  store: Store,
  id: number,
  chosen: readonly number[],
  by: string,
  said: LoanAnswers,
  nextId: () => number,
): Promise<{
  list: StoredObject<'withdrawlist'>;
  all: readonly Verdict[];
  verdicts: Verdict[];
  changes: ChangeSet;
}> {
  const list = await openList(store, id);
  const { verdicts } = await weighed(store, id, said);
  const allowed = new Map(
    verdicts.filter((v) => v.candidate && v.verdict !== 'stop').map((v) => [v.candidate!.copyId, v]),
  );
  const stopped = chosen.filter((c) => !allowed.has(c));
  if (stopped.length) {
    const one = verdicts.find((v) => v.candidate?.copyId === stopped[0]);
    throw wrong(
      'copies',
      `${counted(stopped.length, 'copy', 'copies')} may not go${one ? `: ${groupedBarcode(one.code)}: ${one.reasons[0]!.message}` : ', because not on this list.'}`,
    );
  }
  const stock = await stockOf(store, chosen);
  const changes = withdrawalPlan(stock, new Set(chosen), {
    on: today(),
    by,
    reason: list.value.reason,
    nextId,
  });
  return { list, all: verdicts, verdicts: chosen.map((c) => allowed.get(c)!), changes };
}

const totals = (changes: ChangeSet) => {
  const gone = (kind: string) => changes.filter((c) => c.kind === kind && c.after === null).length;
  return { copies: gone('copy'), holdings: gone('holding'), records: gone('record') };
};

export async function reviewWithdrawal(
  services: Services,
  id: number,
  chosen: readonly number[],
  by: string,
): Promise<Review> {
  let next = 0;
  const said = await askLoans(services, id, { anew: false });
  const { verdicts, changes } = await plan(services.store, id, chosen, by, said, () => --next);
  const n = totals(changes);
  const consequences: string[] = [];
  if (n.holdings)
    consequences.push(
      `${counted(n.holdings, 'holding')} will go, because no copy is left on ${n.holdings === 1 ? 'it' : 'them'}.`,
    );
  if (n.records)
    consequences.push(
      `${counted(n.records, 'record')} will leave the catalogue: the last copy anywhere goes. The union catalogue must be told.`,
    );
  const rows = verdicts.map((v) => ({
    id: v.candidate!.copyId,
    label: v.candidate!.title,
    detail: groupedBarcode(v.code),
    exception: v.reasons[0]?.message ?? null,
    before: { text: `Copy ${groupedBarcode(v.code)}, ${v.candidate!.status}` },
    after: { text: 'In the register of withdrawals' },
    canLeaveOut: true,
  }));
  rows.sort((a, b) => Number(b.exception !== null) - Number(a.exception !== null));
  return {
    sentence: `${counted(n.copies, 'copy', 'copies')} will be withdrawn.`,
    verb: `Withdraw ${counted(n.copies, 'copy', 'copies')}`,
    count: n.copies,
    consequences,
    rows,
    more: 0,
    token: tokenOf(verdicts, changes),
  };
}

/** A number for what a review of a withdrawal tells: which copies go, why one should look twice, what goes with them. */
const tokenOf = (verdicts: readonly Verdict[], changes: ChangeSet): string =>
  contentNumber([
    verdicts.map((v) => [v.candidate!.copyId, v.reasons.map((r) => r.message)]),
    totals(changes),
  ]).toString(36);

/** Refuses what would do something else than was shown, with what is new. */
function asShown(token: string, verdicts: readonly Verdict[], changes: ChangeSet): void {
  if (tokenOf(verdicts, changes) === token) return;
  const now = verdicts.flatMap((v) => v.reasons.map((r) => `${groupedBarcode(v.code)}: ${r.message}`));
  throw new ProblemError(
    409,
    `Something has changed since this was reviewed. Nothing was withdrawn; look at the review again. ${now.slice(0, 3).join(' ')}`.trim(),
  );
}

/** Withdraws chosen copies. The loans desk is asked anew just before, past whatever it said a moment ago. */
export async function withdraw(
  services: Services,
  person: { id: number; name: string },
  id: number,
  wanted: readonly number[],
  token?: string,
): Promise<{ entry: number; sentence: string }> {
  const chosen = [...new Set(wanted)];
  const said = await askLoans(services, id, { anew: true });
  let shown = token;
  return commitPlan(services.store, person.id, async (store) => {
    let next = await store.nextIds('withdrawn', chosen.length);
    const { list, all, verdicts, changes } = await plan(store, id, chosen, person.name, said, () => next++);
    // Without a review, what was planned first is what was asked for.
    shown ??= tokenOf(verdicts, changes);
    asShown(shown, verdicts, changes);
    const left = all.filter(
      (v) => v.candidate && v.verdict !== 'stop' && !verdicts.some((w) => w.code === v.code),
    );
    const closing = left.length === 0 ? [update('withdrawlist', list, { ...list.value, state: 'done' })] : [];
    const n = totals(changes);
    const sentence = `Withdrew ${counted(n.copies, 'copy', 'copies')} from ${quoted(list.value.name)}${n.records ? `, and ${counted(n.records, 'record')} with the last copy` : ''}`;
    return { act: 'withdraw', sentence, changes: [...changes, ...closing] };
  });
}

/** The register of what went. Rows whose withdrawal was taken back stay, and say so. */
export async function register(
  { store }: Services,
  before: number | null,
): Promise<{ rows: RegisterRow[]; next: number | null }> {
  const rows = await store.rows<{ id: number; value: string; gone: number; entry: number }>(
    `SELECT w.id, w.value, w.gone, (SELECT MIN(o.entry) FROM daybook_objects o WHERE o.kind = 'withdrawn' AND o.object = w.id) AS entry
     FROM withdrawn w ${before ? 'WHERE w.id < :before' : ''} ORDER BY w.id DESC LIMIT 201`,
    { before },
  );
  return {
    rows: rows.slice(0, 200).map((r) => ({
      id: r.id,
      entry: r.entry,
      restored: r.gone === 1,
      withdrawn: keptValue('withdrawn', r.value),
    })),
    next: rows.length > 200 ? rows[199]!.id : null,
  };
}
