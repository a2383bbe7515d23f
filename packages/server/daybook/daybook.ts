import type { DaybookDetail, Person, ReviewSide, UndoReview } from '@osier/contract';
import { may, permissionToUndo } from '@osier/contract';
import { actSentence } from '@osier/core/acts';
import { countChanges, sameValue, type Conflict } from '@osier/core/changes';
import { labelOfAny, nounOf, type Change, type ChangeSet } from '@osier/core/kinds';
import { notFound, ProblemError, wrong } from '../http/problem';
import { PAGE_ROWS } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { NOTHING } from '../store/digest';
import { entryIndex, type Indexed } from '../store/entry-index';
import { takeable } from '../store/takeable';
import { entryParts } from '../store/entry-parts';
import { actUndoing, sentenceOfEntry } from '../store/kept-acts';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { undoPlan } from '../store/undo';
import { countTold } from '../projections/union-rows';
import { countNoticesTold } from '../projections/loans-to-tell';
import { saysDeskTold, saysTold } from './says-told';
import { tellConflicts } from './tell-conflicts';
import { entryOf } from './entries';
import { entryWithPerson, type EntryRow } from './queries';
import { jobOnEntry } from '../jobs/queries';

const SHOWN = 100;

async function entryRow({ store }: { readonly store: Store }, id: number): Promise<EntryRow> {
  const row = await entryWithPerson(store, id);
  if (!row) throw notFound(`Entry ${id}`);
  return row;
}

/** Changes without those of incoming records that only count that their fields changed. */
function told(changes: ChangeSet): ChangeSet {
  return changes.filter((c) => {
    if (c.kind !== 'incoming' || c.before === null || c.after === null) return true;
    return !sameValue({ ...c.before, edits: 0 }, { ...c.after, edits: 0 });
  });
}

type Side = 'before' | 'after';

/** What was or became, as it may leave the server: where a delivery's file lies is not for anybody. */
function shown(change: Change, side: Side): object | null {
  if (change.kind !== 'delivery' || change[side] === null) return change[side];
  const { sha256: _, ...rest } = change[side];
  return rest;
}

const labelOfChange = ({ kind, id, before, after }: Change): string => labelOfAny(kind, id, after ?? before);

/** An entry with its first changes. */
export async function entryDetail(services: Services, id: number): Promise<DaybookDetail> {
  const row = await entryRow(services, id);
  const changes: Change[] = [];
  let read = 0;
  for await (const part of entryParts(services.store, id)) {
    read += part.changes.length;
    changes.push(...told(part.changes));
    if (changes.length >= SHOWN) break;
  }
  return {
    ...entryOf(row),
    changes: changes.slice(0, SHOWN).map((c) => ({
      kind: c.kind,
      id: c.id,
      label: labelOfChange(c),
      before: shown(c, 'before'),
      after: shown(c, 'after'),
    })),
    more: Math.max(0, changes.length - SHOWN) + Math.max(0, row.objects - read),
  };
}

/** One side of a change as a review shows it: the fields where there are any, else a line. */
function sideOf(change: Change, side: Side): ReviewSide | null {
  if (change[side] === null) return null;
  const text = labelOfAny(change.kind, change.id, change[side]);
  switch (change.kind) {
    case 'record':
      return change[side] && { marc: change[side] };
    case 'fields':
    case 'heading':
      return change[side] && { marc: change[side].marc };
    case 'copy':
      return change[side] && { text: `${text}, ${change[side].status}` };
    default:
      return { text };
  }
}

/** What taking an entry back will do, from the same plan that does it. */
export async function reviewUndo(services: Services, id: number, from = 0): Promise<UndoReview> {
  const row = await entryRow(services, id);
  if (row.undone_by) throw wrong('entry', `This was undone already, by entry ${row.undone_by}.`);
  const {
    count,
    counted: kinds,
    page,
    conflicts,
    token,
    told: toldGone,
    deskTold,
  } = await lookAtUndo(services, id, from);
  const counts = Object.entries(kinds).map(([kind, n]) =>
    [
      n.made && `${n.made} made again`,
      n.changed && `${n.changed} put back`,
      n.removed && `${n.removed} removed`,
    ]
      .filter(Boolean)
      .join(', ')
      .replace(/^/, `${nounOf(kind, true)}: `),
  );
  return {
    sentence: `Undoes: ${sentenceOfEntry(row)}.`,
    verb: 'Undo',
    noun: { one: 'change', many: 'changes' },
    count,
    consequences: [...counts, ...saysTold(toldGone), ...saysDeskTold(deskTold)],
    conflicts: await tellConflicts(services, conflicts, id),
    rows: page.map((c) => ({
      id: c.id,
      label: `${nounOf(c.kind)} ${c.id}: ${labelOfChange(c)}`,
      detail: c.after === null ? 'goes' : c.before === null ? 'comes back' : 'put back',
      exception: null,
      before: sideOf(c, 'before'),
      after: sideOf(c, 'after'),
      canLeaveOut: false,
    })),
    more: Math.max(0, count - from - PAGE_ROWS),
    token,
  };
}

/** What of an entry is taken back: how much, by kind, the changes of one page, and what stands in the way. */
interface UndoLook {
  readonly token: string;
  readonly count: number;
  readonly counted: ReturnType<typeof countChanges>;
  readonly page: readonly Change[];
  readonly conflicts: readonly Conflict[];
  /** Copies of it of which the union catalogue was told that they had gone. */
  readonly told: number;
  /** Settled findings of it of which the loans desk was told. */
  readonly deskTold: number;
}

async function lookAtUndo(
  { store: { aside: store } }: Services,
  id: number,
  from: number,
): Promise<UndoLook> {
  const shownOf = await beginReview(store);
  const index = await entryIndex(store, [id], { isTold: (c) => told([c]).length > 0 });
  const { objects, conflicts } = await takeable(store, index);
  seeUndoing(shownOf, objects, conflicts);
  const shown = objects.filter((o) => o.told);
  const nothing = (digest: string) => (digest === NOTHING ? null : digest);
  return {
    count: shown.length,
    // What goes is made again the other way round: the inverse begins with what the entry left.
    counted: countChanges(
      shown.map(({ kind, id: of, before, after }) => ({
        kind,
        id: of,
        version: 0,
        before: nothing(after),
        after: nothing(before),
      })),
    ),
    page: await index.inverse(shown.slice(from, from + PAGE_ROWS)),
    conflicts,
    told: await countTold(
      store,
      objects.filter((o) => o.kind === 'withdrawn').map((o) => o.id),
    ),
    deskTold: await countNoticesTold(
      store,
      objects.filter((o) => o.kind === 'settled').map((o) => o.id),
    ),
    token: shownOf.token(),
  };
}

/** What a review of undoing tells: what goes back, and what stands in the way. */
function seeUndoing(
  shown: Shown,
  objects: readonly Indexed[],
  conflicts: readonly Pick<Conflict, 'kind' | 'id' | 'dependsOn'>[],
): void {
  for (const o of objects) shown.see(o.kind, o.id);
  for (const c of conflicts) shown.see(c.kind, c.id, c.dependsOn);
}

/** The act at the bottom of a chain of undoings: doing a withdrawal again asks for what withdrawing asks for. */
async function firstAct(services: { readonly store: Store }, row: EntryRow): Promise<string> {
  return row.undoes === null ? row.act : firstAct(services, await entryRow(services, row.undoes));
}

/** Entries with more objects than this are taken back as a job. */
const AT_ONCE = 2000;

/** Takes an entry back whole, or says what stands in the way. A large one is begun as a job. */
export async function undo(
  services: Services,
  person: Person,
  id: number,
  token?: string,
): Promise<{ entry: number; sentence: string } | { job: number; sentence: string }> {
  const row = await undoable(services, person, id);
  const did = await actUndoing(services.store, id);
  const sentence = actSentence(did);
  if (row.objects > AT_ONCE) {
    const { aside } = services.store;
    const { objects, conflicts } = await takeable(aside, await entryIndex(aside, [id]));
    if (conflicts.length) throw await inTheWay(services, conflicts, id);
    await refuseOther(aside, token, objects);
    const { jobs } = services;
    const job = await jobs.begin('undo', sentence, person.id, { undoes: id, did }, objects.length);
    return { job: job.id, sentence };
  }
  const done = await commitPlan(services.store, person.id, async (store) => {
    await undoable({ store }, person, id);
    const index = await entryIndex(store, [id]);
    const { objects, changes, conflicts } = await undoPlan(store, index);
    if (conflicts.length) throw await inTheWay({ store }, conflicts, id);
    await refuseOther(store, token, objects);
    return { did: await actUndoing(store, id), changes, undoes: id };
  });
  return { entry: done.entry, sentence: done.sentence };
}

/** Refuses to take back something else than what was reviewed. */
async function refuseOther(
  store: Store,
  token: string | undefined,
  objects: readonly Indexed[],
): Promise<void> {
  const shown = await beginReview(store);
  seeUndoing(shown, objects, []);
  if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
}

/** An entry that this person may take back now. */
async function undoable(services: { readonly store: Store }, person: Person, id: number): Promise<EntryRow> {
  const row = await entryRow(services, id);
  const permission = permissionToUndo(await firstAct(services, row));
  if (!may(person.role, permission, person.rights))
    throw new ProblemError(
      403,
      `Undoing this asks for the permission “${permission}”, which your role (${person.role}) does not have.`,
    );
  if (row.undone_by) throw wrong('entry', `This was undone already, by entry ${row.undone_by}.`);
  if (row.objects === 0) throw wrong('entry', 'There is nothing in this entry to undo.');
  const busy = await jobOnEntry(services.store, id);
  if (busy) throw wrong('entry', 'This is still being done. Cancel it first, or wait until it is done.');
  return row;
}

const inTheWay = async (services: { readonly store: Store }, conflicts: readonly Conflict[], entry: number) =>
  new ProblemError(409, 'This cannot be undone, because something has changed since. Nothing was changed.', {
    conflicts: await tellConflicts(services, conflicts, entry),
  });
