import type { Review } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, type Conflict } from '@osier/core/changes';
import type { ChangeSet, StoredObject } from '@osier/core/kinds';
import { saysTold } from '../daybook/says-told';
import { tellConflicts } from '../daybook/tell-conflicts';
import { ProblemError, wrong } from '../http/problem';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import { countTold } from '../projections/union-rows';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { NOTHING } from '../store/digest';
import { entryIndex, type Indexed } from '../store/entry-index';
import type { Store } from '../store/store';
import { undoPlan } from '../store/undo';
import { entriesOfRegister } from './queries';

/** Which copies of the register come back. */
export interface Restoring {
  readonly rows: readonly number[];
  readonly token?: string;
}

interface RestorePlan {
  readonly rows: readonly StoredObject<'withdrawn'>[];
  readonly changes: ChangeSet;
}

/**
 * What brings single copies of the register back: of the entries that withdrew them, the part that is these copies with their holdings and
 * records. What is back already is left as it is; what stands in the way refuses all of them by name.
 */
async function plan(store: Store, ids: readonly number[]): Promise<RestorePlan> {
  const rows = await store.readMany('withdrawn', [...new Set(ids)]);
  const gone = ids.find((id) => !rows.some((r) => r.id === id));
  if (gone !== undefined)
    throw wrong('rows', `There is no row ${gone} in the register, or it was undone already.`);
  const entries = new Map((await entriesOfRegister(store, ids)).map((e) => [e.id, e.entry]));
  const changes: ChangeSet[number][] = [];
  for (const entry of new Set(entries.values())) {
    const index = await entryIndex(store, [entry]);
    const own = rows.filter((r) => entries.get(r.id) === entry);
    const { changes: back, conflicts } = await undoPlan(store, index, {
      together: index.objects.filter(partOf(own)),
      begun: true,
    });
    if (conflicts.length) throw await inTheWay(store, conflicts, entry);
    changes.push(...back);
  }
  if (!changes.some((c) => c.kind === 'copy' && c.after))
    throw wrong('rows', 'These copies are back in the catalogue already.');
  await refusePlacesGone(store, changes);
  return { rows, changes };
}

/** What of an entry belongs to some rows of the register. A record that stayed with a note keeps it. */
function partOf(rows: readonly StoredObject<'withdrawn'>[]): (o: Indexed) => boolean {
  const keys = new Set(
    rows.flatMap(({ id, value }) => [
      ...[`withdrawn ${id}`, `copy ${value.copyId}`, `holding ${value.copy.holding}`],
      ...[`record ${value.record}`, `suppressed ${value.record}`],
    ]),
  );
  return (o) => keys.has(`${o.kind} ${o.id}`) && (o.kind !== 'record' || o.after === NOTHING);
}

const inTheWay = async (
  store: Store,
  conflicts: readonly Conflict[],
  entry: number,
): Promise<ProblemError> => {
  const told = await tellConflicts({ store }, conflicts, entry);
  return new ProblemError(
    409,
    `This cannot be undone, because something has changed since: ${told.map((c) => c.message).join(' ')} Nothing was changed.`,
    { conflicts: told },
  );
};

/** A copy does not come back to a branch or location that the library has no more. */
async function refusePlacesGone(store: Store, changes: ChangeSet): Promise<void> {
  const { branches, locations } = (await store.lists()).value;
  for (const c of changes) {
    if (c.kind !== 'holding' || c.after === null) continue;
    const { branch, location } = c.after;
    const isThere =
      branches.some((b) => b.code === branch) &&
      locations.some((l) => l.branch === branch && l.code === location);
    if (!isThere)
      throw wrong(
        'rows',
        `There is no ${branch} ${location} any more, where a copy would come back to. Add it to the code lists first.`,
      );
  }
}

/** What bringing copies back would do. */
export async function reviewRestore(services: Services, ids: readonly number[]): Promise<Review> {
  const store = services.store.aside;
  const shown = await beginReview(store);
  const { rows, changes } = await plan(store, ids);
  seeRestoring(shown, changes);
  const back = countBack(changes);
  return {
    sentence: `${counted(back.copies, 'copy', 'copies')} will be back in the catalogue.`,
    verb: 'Undo',
    noun: { one: 'withdrawal', many: 'withdrawals' },
    count: back.copies,
    consequences: [
      ...(back.holdings ? [`${counted(back.holdings, 'holding')} will be made again.`] : []),
      ...(back.records ? [`${counted(back.records, 'record')} will be made again.`] : []),
      ...saysTold(
        await countTold(
          store,
          rows.map((r) => r.id),
        ),
      ),
    ],
    rows: rows.map(({ id, value }) => ({
      ...{ id, label: value.title, detail: groupedBarcode(value.copy.barcode), exception: null },
      before: { text: `Withdrawn on ${value.withdrawnOn}` },
      after: { text: `${value.callNumber}, ${value.branch} ${value.location}, ${value.copy.status}` },
      canLeaveOut: false,
    })),
    more: 0,
    token: shown.token(),
  };
}

const countBack = (changes: ChangeSet) => {
  const back = (kind: string) => changes.filter((c) => c.kind === kind && c.before === null).length;
  return { copies: back('copy'), holdings: back('holding'), records: back('record') };
};

function seeRestoring(shown: Shown, changes: ChangeSet): void {
  for (const c of changes) shown.see(c.kind, c.id);
}

/** Brings single copies of the register back into the catalogue, at any later time; their rows stay and say so. */
export const restoreCopies = (
  { store }: Services,
  person: number,
  { rows, token }: Restoring,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const { changes } = await plan(s, rows);
    if (token !== undefined) {
      const shown = await beginReview(s);
      seeRestoring(shown, changes);
      if (!showsTheSame(token, shown.token())) throw changedSinceReview();
    }
    const { copies, records } = countBack(changes);
    return { did: { act: 'restore' as const, counts: { copies, records } }, changes };
  });
