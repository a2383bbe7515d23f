import type { WithdrawBody, WithdrawalRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted } from '@osier/core/changes';
import type { LastCopy, WithdrawalLimits } from '@osier/core/house';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { withdrawalPlan, type TitleStock } from '@osier/core/withdrawals';
import { today } from '../day';
import { wrong } from '../http/problem';
import type { Store } from '../store/store';
import { recordsOfCopies } from './queries';
import { limitsOf } from './weighed';

/** What is asked to be withdrawn, and how. */
export type Withdrawing = Pick<WithdrawBody, 'copies' | 'overrule' | 'lastCopy' | 'lastCopies'>;

/** The titles of these copies with all their holdings and copies. */
async function stockOf(store: Store, copies: readonly number[]): Promise<TitleStock[]> {
  const titles = new Map((await recordsOfCopies(store, copies)).map((t) => [t.id, t]));
  const ids = [...titles.keys()];
  if (ids.length === 0) return [];
  const records = await store.readMany('record', ids);
  const holdings = byRecord(await store.find('holding', { where: { record: ids } }), (h) => h.value.record);
  const recordOf = new Map([...holdings].flatMap(([record, own]) => own.map((h) => [h.id, record])));
  const copiesOf = byRecord(
    await store.find('copy', { where: { record: ids } }),
    (c) => recordOf.get(c.value.holding) ?? 0,
  );
  return records.map((record) => {
    const { title, author, isSuppressed } = titles.get(record.id)!;
    return {
      ...{ record, title, author, isSuppressed: isSuppressed === 1 },
      holdings: holdings.get(record.id) ?? [],
      copies: copiesOf.get(record.id) ?? [],
    };
  });
}

function byRecord<T>(all: readonly T[], recordOf: (one: T) => number): ReadonlyMap<number, T[]> {
  const found = new Map<number, T[]>();
  for (const one of all) {
    const own = found.get(recordOf(one));
    if (own) own.push(one);
    else found.set(recordOf(one), [one]);
  }
  return found;
}

/** The rows of a list that may go among the copies that are asked for. */
export interface Going {
  /** All rows of the list, each code once. */
  readonly first: readonly WithdrawalRow[];
  readonly going: readonly WithdrawalRow[];
  /** Copies that may not go, or are not on the list. */
  readonly stopped: readonly number[];
}

/** Which copies may go: those that nothing stops, and those whose stop the head overrules where that may be. */
export function goingOf(
  verdicts: readonly WithdrawalRow[],
  wanted: readonly number[],
  overruled: ReadonlySet<number>,
): Going {
  const first = verdicts.filter((v) => !v.again);
  const of = new Map(first.flatMap((v) => (v.candidate ? [[v.candidate.copyId, v]] : [])));
  const going: WithdrawalRow[] = [];
  const stopped: number[] = [];
  for (const copy of new Set(wanted)) {
    const v = of.get(copy);
    if (v && (v.verdict !== 'stop' || (v.overrulable && overruled.has(copy)))) going.push(v);
    else stopped.push(copy);
  }
  return { first, going, stopped };
}

/** The refusal of copies that may not go, by the first of them. */
export function refuseStopped({ first, stopped }: Going): void {
  if (stopped.length === 0) return;
  const one = first.find((v) => v.candidate?.copyId === stopped[0]);
  const why = one?.reasons.find((r) => r.verdict === 'stop')?.message ?? '';
  throw wrong(
    'copies',
    `${counted(stopped.length, 'copy', 'copies')} cannot be withdrawn${one ? `: ${groupedBarcode(one.code)}: ${why}` : ', because not on this list.'}`,
  );
}

/** What is said against a copy, as the register keeps it. */
export const reasonsOf = (v: WithdrawalRow): string[] => v.reasons.map((r) => r.message);

/** The changes that withdraw the rows of a list that go. */
export async function changesOf(
  store: Store,
  list: StoredObject<'withdrawlist'>,
  going: readonly WithdrawalRow[],
  { overrule, lastCopy, lastCopies }: Pick<Withdrawing, 'overrule' | 'lastCopy' | 'lastCopies'>,
  { by, nextId }: { readonly by: string; readonly nextId: () => number },
): Promise<ChangeSet> {
  const chosen = going.flatMap((v) => v.candidate?.copyId ?? []);
  const limits = limitsOf((await store.house()).value);
  const single = new Map(lastCopies.map((c) => [c.record, c.how]));
  return withdrawalPlan(await stockOf(store, chosen), new Set(chosen), {
    on: today(),
    by,
    reason: list.value.reason,
    ...{ list: list.value.name, preparedBy: list.value.by },
    nextId,
    lastCopy: ({ record }): LastCopy =>
      single.get(record.id) ?? lastCopy ?? ruleOf(limits, list.value.branch),
    despite: new Map(going.map((v) => [v.candidate?.copyId ?? 0, reasonsOf(v)])),
    overruled: new Map(
      going.flatMap((v) =>
        v.verdict === 'stop' && v.candidate ? [[v.candidate.copyId, overrule.reason]] : [],
      ),
    ),
  });
}

/** What becomes of records that lose their last copy by a list of a branch, where nothing else is chosen. */
const ruleOf = ({ lastCopyAt, lastCopy }: WithdrawalLimits, branch: string): LastCopy =>
  lastCopyAt.find((a) => a.branch === branch)?.lastCopy ?? lastCopy;

/** How many copies, holdings and records go. */
export function countGone(changes: ChangeSet): {
  readonly copies: number;
  readonly holdings: number;
  readonly records: number;
} {
  const gone = (kind: string) => changes.filter((c) => c.kind === kind && c.after === null).length;
  return { copies: gone('copy'), holdings: gone('holding'), records: gone('record') };
}
