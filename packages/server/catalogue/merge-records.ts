import type { AlikeGroupRow, AlikePage, MergeRecordsBody, Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { quoted } from '@osier/core/acts';
import { counted, creation } from '@osier/core/changes';
import { withKeptForms } from '@osier/core/headings';
import { recordMergePlan, type MergeChange, type Stocked } from '@osier/core/duplicates';
import type { StoredObject } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import { cursorOf, placeIn } from '../http/cursor';
import { notFound, wrong } from '../http/problem';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import { countPairs, pageOfPairs, pairsWith } from '../projections/alike-records';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { followedBy } from '../headings/follow';
import { briefsOf, piledRecords } from './queries';
import { errorsAllowed, recordErrors, errorsSentence, marcOf, newHeadings } from './records';

const GROUPS_SHOWN = 100;
/** Side by side more than these are not compared. */
const MOST_IN_GROUP = 4;

/** A page of groups of records that may be one, the surest first. */
export async function alikeGroups({ store }: Services, cursor: string | undefined): Promise<AlikePage> {
  const after = placeIn<readonly [sure: number, strength: number, a: number]>(cursor, [0, 0, 0]);
  const found = await pageOfPairs(
    store,
    after && { sure: after[0], strength: after[1], a: after[2] },
    GROUPS_SHOWN + 1,
  );
  const groups = found.slice(0, GROUPS_SHOWN);
  const firsts = groups.map((g) => g.a);
  const own = await pairsWith(store, firsts);
  // Those that are paired with one of the others of a group stand in it too.
  const all = await pairsWith(store, [...new Set(own.flatMap((p) => [p.a, p.b]))]);
  const membersOf = (first: number): number[] => {
    const members = new Set([first]);
    for (let n = 0; n < MOST_IN_GROUP; n++)
      for (const p of all)
        if (members.size < MOST_IN_GROUP && (members.has(p.a) || members.has(p.b))) members.add(p.a).add(p.b);
    return [...members].slice(0, MOST_IN_GROUP).sort((a, b) => a - b);
  };
  const members = new Map(firsts.map((first) => [first, membersOf(first)]));
  const briefs = new Map((await briefsOf(store, [...members.values()].flat())).map((b) => [b.id, b]));
  const rows = firsts.map((first): AlikeGroupRow => {
    const ids = members.get(first)!;
    const pairs = all.filter((p) => ids.includes(p.a) && ids.includes(p.b));
    return {
      records: ids.flatMap((id) => {
        const brief = briefs.get(id);
        return brief ? [{ ...brief, branches: brief.branches.split(' ').filter(Boolean) }] : [];
      }),
      sure: pairs.some((p) => p.sure === 1),
      pairs: pairs.map(({ a, b, why, sure }) => ({ a, b, why, sure: sure === 1 })),
    };
  });
  const last = groups.at(-1);
  const { groups: total, waiting } = await countPairs(store);
  return {
    rows,
    next: found.length > GROUPS_SHOWN && last ? cursorOf([last.sure, last.strength, last.a]) : null,
    total,
    comparing: waiting,
  };
}

interface MergePlanned {
  readonly base: StoredObject<'record'>;
  readonly lost: readonly StoredObject<'record'>[];
  readonly marc: MarcRecord;
  readonly changes: readonly MergeChange[];
  readonly copies: number;
  /** What following see-froms to their headings changed in it. */
  readonly notes: readonly string[];
}

async function plan(
  store: Store,
  {
    base: baseId,
    version,
    lost: lostIds,
    marc: sent,
  }: Pick<MergeRecordsBody, 'base' | 'version' | 'lost' | 'marc'>,
): Promise<MergePlanned> {
  if (lostIds.includes(baseId)) throw wrong('lost', 'A record cannot be merged into itself.');
  const ids = [...new Set(lostIds)];
  const [base, lost] = [await store.read('record', baseId), await store.readMany('record', ids)];
  if (!base || lost.length !== ids.length) throw notFound('One of these records');
  if (base.version !== version)
    throw changedSinceReview(`Record ${baseId} was changed since its fields were chosen.`);
  const asSent = marcOf(sent);
  const { record: marc, notes } = withKeptForms(asSent, await followedBy(store, [asSent]));
  const [kept, moving] = [await stockOf(store, [baseId]), await stockOf(store, ids)];
  const changes = recordMergePlan({
    base,
    marc,
    lost,
    kept,
    moving,
    piled: await piledRecords(store, [baseId, ...ids]),
  });
  return { base, lost, marc, changes, notes, copies: moving.reduce((n, m) => n + m.copies.length, 0) };
}

/** Holdings of some records with their copies, in the order of their numbers. */
async function stockOf(store: Store, records: readonly number[]): Promise<Stocked[]> {
  const holdings = await store.find('holding', { where: { record: [...records] }, order: [['id', 'ASC']] });
  const copies = await store.find('copy', { where: { record: [...records] }, order: [['id', 'ASC']] });
  return holdings.map((holding) => ({
    holding,
    copies: copies.filter((c) => c.value.holding === holding.id),
  }));
}

/** What a review of a merge tells: every object that it changes, as it was, and what the record becomes. */
function seeMerge(shown: Shown, { changes, marc }: MergePlanned): void {
  for (const c of changes) shown.see(c.kind, c.before === null ? 'new' : c.id, c.version);
  shown.see(marc);
}

/** What a merge of records would change. */
export async function reviewMergeRecords({ store }: Services, body: MergeRecordsBody): Promise<Review> {
  const shown = await beginReview(store);
  const merge = await plan(store, body);
  seeMerge(shown, merge);
  const { base, lost, marc, changes, copies, notes } = merge;
  const errors = await recordErrors(store, marc);
  const rows: ReviewRow[] = [
    {
      id: base.id,
      label: briefOf(marc).title,
      detail: `record ${base.id}, which is kept`,
      exception: errors.length ? errorsSentence(errors) : null,
      before: { marc: base.value },
      after: { marc },
      canLeaveOut: false,
    },
    ...lost.map((l) => ({
      id: l.id,
      label: briefOf(l.value).title,
      detail: `record ${l.id}`,
      exception: null,
      before: { marc: l.value },
      after: { text: `Its number leads to record ${base.id}.` },
      canLeaveOut: false,
    })),
  ];
  const renumbered = changes.filter(
    (c) => c.kind === 'copy' && c.before !== null && c.after !== null && c.before.number !== c.after.number,
  ).length;
  return {
    sentence: `${counted(lost.length, 'record')} will be merged into ${quoted(briefOf(marc).title)}.`,
    verb: 'Merge',
    noun: { one: 'record', many: 'records' },
    count: lost.length + 1,
    consequences: [
      ...(copies
        ? [
            `${counted(copies, 'copy', 'copies')} with ${copies === 1 ? 'its' : 'their'} holdings will hang on record ${base.id}.`,
          ]
        : []),
      ...(renumbered
        ? [`${counted(renumbered, 'copy', 'copies')} will get another copy number; barcodes stay.`]
        : []),
      ...notes,
    ],
    rows,
    more: 0,
    token: shown.token(),
  };
}

/** Merges records into one, as it was reviewed. */
export const mergeRecords = (
  { store }: Services,
  person: number,
  body: MergeRecordsBody,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const shown = await beginReview(s);
    const merge = await plan(s, body);
    seeMerge(shown, merge);
    if (body.token !== undefined && !showsTheSame(body.token, shown.token()))
      throw changedSinceReview('One of these records or its copies was changed since.');
    const { marc, lost, copies, notes } = merge;
    const errors = await errorsAllowed(s, marc, body.withErrors);
    return {
      did: {
        act: 'merge-records',
        names: { title: briefOf(marc).title },
        counts: { records: lost.length, copies },
        ...(errors && { errors }),
        notes,
      },
      changes: [...merge.changes, ...(await newHeadings(s, [marc]))],
    };
  });

/** Records that two records are two titles, so that they are not shown as look-alikes again. */
export const keepRecordsApart = (
  { store }: Services,
  person: number,
  { a, b, reason }: { readonly a: number; readonly b: number; readonly reason: string },
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    if (a === b) throw wrong('b', 'These are not two records.');
    const [low, high] = a < b ? [a, b] : [b, a];
    const held = await s.readMany('record', [low, high]);
    if (held.length < 2) throw notFound('One of these records');
    if ((await s.find('apart', { where: { a: low, b: high } })).length)
      throw wrong('b', 'These two are recorded as two titles already.');
    const [one, other] = [low, high].map((id) => briefOf(held.find((h) => h.id === id)!.value).title);
    return {
      did: { act: 'records-apart', names: { one: one!, other: other!, reason } },
      changes: [creation('apart', await s.nextIds('apart', 1), { a: low, b: high, reason })],
    };
  });
