import type { HeadingDetail, HeadingRow, LookAlikePage, Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted } from '@osier/core/changes';
import type { Change, StoredObject } from '@osier/core/kinds';
import {
  distinctChange,
  formText,
  headingIdentity,
  headingText,
  identityOf,
  mergePlan,
  NotMergeable,
  seeFroms,
  type MergePlan,
} from '@osier/core/headings';
import { foldedWords } from '@osier/core/text';
import { newHeadings } from '../catalogue/records';
import { quoted, type Act } from '@osier/core/acts';
import { notFound, wrong } from '../http/problem';
import { cursorOf, placeIn } from '../http/cursor';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import {
  headingsByNumber,
  headingsWithWords,
  type AfterHeading,
  mergedInto,
  recordsCarrying,
  recordsUnder,
  titlesUnder,
} from './queries';
import { totals } from '../projections/counts';
import { countWaiting, pageOfGroups } from '../projections/look-alikes';

const PAGE = 100;

/** Headings in alphabetical order whose text has all these words. */
export async function listHeadings(
  { store }: Services,
  q: string,
  kind: string | undefined,
  cursor: string | undefined,
): Promise<{ rows: HeadingRow[]; next: string | null }> {
  const words = foldedWords(q).slice(0, 6);
  const after = placeIn<AfterHeading>(cursor, ['', 0]);
  const rows = await headingsWithWords(store, { words, kind, after, atMost: PAGE + 1 });
  const last = rows[PAGE - 1];
  return {
    rows: rows.slice(0, PAGE),
    next: rows.length > PAGE && last ? cursorOf([last.text, last.id]) : null,
  };
}

const TITLES_SHOWN = 4;

const GROUPS_SHOWN = 100;

/** A page of the groups of personal headings that look alike, the surest first. `after` is what the page before gave as `next`. */
export async function lookAlikeList({ store }: Services, cursor: string | undefined): Promise<LookAlikePage> {
  const after = placeIn<readonly [score: number, id: number]>(cursor, [0, 0]);
  const behind = after && { score: after[0], id: after[1] };
  const found = await pageOfGroups(store, behind, GROUPS_SHOWN + 1);
  const groups = found.slice(0, GROUPS_SHOWN);
  const ids = groups.flatMap((g) => g.headings);
  const [rows, held, titles] = [
    new Map((await headingsByNumber(store, ids)).map((r) => [r.id, r])),
    new Map((await store.readMany('heading', ids)).map((h) => [h.id, h.value])),
    await titlesUnder(store, ids, TITLES_SHOWN),
  ];
  const last = groups.at(-1);
  return {
    rows: groups.map((g) => ({
      headings: g.headings.flatMap((id) => {
        const [row, heading] = [rows.get(id), held.get(id)];
        if (!row || !heading) return [];
        const own = titles.filter((t) => t.heading === id).map((t) => t.title);
        return [{ ...row, seeFrom: seeFroms(heading).map(formText), titles: own }];
      }),
      pairs: g.pairs,
    })),
    next: found.length > GROUPS_SHOWN && last ? cursorOf([last.score, last.id]) : null,
    total: (await totals(store))['look-alikes'],
    comparing: await countWaiting(store),
  };
}

/** A heading with what carries it and what was merged into it. */
export async function headingDetail({ store }: Services, id: number): Promise<HeadingDetail> {
  const heading = await store.read('heading', id);
  const [row] = await headingsByNumber(store, [id]);
  if (!heading || !row) throw notFound(`Heading ${id}`);
  const [usedBy, merged] = [await recordsUnder(store, id), await mergedInto(store, id)];
  return {
    ...row,
    version: heading.version,
    marc: heading.value.marc,
    seeFrom: seeFroms(heading.value).map(formText),
    mergedFrom: merged,
    usedBy,
  };
}

async function plan(
  store: Store,
  keptId: number,
  lostIds: readonly number[],
): Promise<{
  kept: StoredObject<'heading'>;
  lost: StoredObject<'heading'>[];
  records: StoredObject<'record'>[];
  plan: MergePlan;
}> {
  if (lostIds.includes(keptId)) throw wrong('kept', 'The kept form cannot be merged into itself.');
  const [kept] = await store.readMany('heading', [keptId]);
  const lost = await store.readMany('heading', lostIds);
  if (!kept || lost.length !== new Set(lostIds).size) throw notFound('One of these headings');
  const odd = [kept, ...lost].find((h) => h.value.mergedInto !== null);
  if (odd)
    throw wrong(
      'lost',
      `${quoted(headingText(odd.value))} was merged into heading ${odd.value.mergedInto} already.`,
    );
  const mixed = lost.find((l) => l.value.kind !== kept.value.kind);
  if (mixed)
    throw wrong(
      'lost',
      `${quoted(headingText(mixed.value))} is a ${mixed.value.kind} heading, the kept form is ${kept.value.kind}.`,
    );
  const records = await store.readMany('record', await recordsCarrying(store, lostIds));
  const merge = merged(kept, lost, records);
  const marcs = merge.records.flatMap((c) => c.after ?? []);
  // A subject that carries its subdivisions along may be a form that no heading knows yet.
  const made = (await newHeadings(store, marcs)).filter((c) => !isKnown(merge, c));
  return { kept, lost, records, plan: { ...merge, changes: [...merge.changes, ...made] } };
}

function merged(
  kept: StoredObject<'heading'>,
  lost: StoredObject<'heading'>[],
  records: StoredObject<'record'>[],
) {
  try {
    return mergePlan(kept, lost, records);
  } catch (error) {
    if (error instanceof NotMergeable) throw wrong('lost', error.message);
    throw error;
  }
}

/** Whether a heading that would be made is one that the merge has already. */
function isKnown(merge: MergePlan, { after }: Change<'heading'>): boolean {
  if (after === null) return false;
  const key = headingIdentity(identityOf(after));
  return merge.headings.some((c) => c.after !== null && headingIdentity(identityOf(c.after)) === key);
}

/** What a review of a merge tells: the objects with their versions, and why one should look twice. */
function seeMerge(shown: Shown, { changes, notes }: MergePlan): void {
  for (const c of changes) shown.see(c.kind, c.before === null ? 'new' : c.id, c.version);
  for (const n of notes) shown.see(n.record, n.message);
}

/** What a merge would change, a page of its records from row `from` on. */
export async function reviewMerge(
  { store }: Services,
  keptId: number,
  lostIds: readonly number[],
  from = 0,
): Promise<Review> {
  const shown = await beginReview(store);
  const { kept, lost, plan: merge } = await plan(store, keptId, lostIds);
  seeMerge(shown, merge);
  const notes = new Map<number, string>();
  for (const n of merge.notes)
    notes.set(n.record, [notes.get(n.record), n.message].filter(Boolean).join(' '));
  const page = reviewPage<ReviewRow>(from);
  const count = merge.records.length;
  for (const { id, before, after } of merge.records) {
    const exception = notes.get(id) ?? null;
    page.offer(exception !== null, () => {
      const brief = briefOf(before!);
      return {
        id,
        label: brief.title,
        detail: [brief.author, brief.year].filter(Boolean).join(' · '),
        exception,
        before: { marc: before! },
        after: { marc: after! },
        canLeaveOut: false,
      };
    });
  }
  return {
    sentence: `${counted(count, 'record')} will carry ${quoted(headingText(kept.value))}.`,
    verb: 'Merge',
    noun: { one: 'heading', many: 'headings' },
    count: lost.length + 1,
    consequences: lost.map(
      (l) => `${quoted(headingText(l.value))} becomes a see-from; its number ${l.id} leads to ${kept.id}.`,
    ),
    ...page.take(),
    token: shown.token(),
  };
}

/** Merges headings into one. */
export const merge = (
  { store }: Services,
  person: number,
  keptId: number,
  lostIds: readonly number[],
  token?: string,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const shown = await beginReview(s);
    const { kept, lost, plan: merged } = await plan(s, keptId, lostIds);
    seeMerge(shown, merged);
    if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
    const records = merged.records.length;
    const did: Act = {
      act: 'merge',
      names: { kept: headingText(kept.value) },
      counts: { headings: lost.length + 1, records },
    };
    return { did, changes: merged.changes };
  });

/** Remembers that two headings are two people. */
export const keepApart = (
  { store }: Services,
  person: number,
  a: number,
  b: number,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    if (a === b) throw wrong('b', 'A heading cannot be kept apart from itself. Choose two headings.');
    const [x, y] = [await s.read('heading', a), await s.read('heading', b)];
    if (!x || !y) throw notFound('One of these headings');
    const merged = [x, y].find((h) => h.value.mergedInto !== null);
    if (merged)
      throw wrong(
        'b',
        `${quoted(headingText(merged.value))} was merged into heading ${merged.value.mergedInto}.`,
      );
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    const [known] = await s.find('distinct', { where: { a: low, b: high } });
    if (known) throw wrong('b', 'They are recorded as different already.');
    const did: Act = {
      act: 'keep-apart',
      names: { one: headingText(x.value), other: headingText(y.value) },
    };
    return { did, changes: [distinctChange(await s.nextIds('distinct', 1), a, b)] };
  });
