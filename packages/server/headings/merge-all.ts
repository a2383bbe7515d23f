import type { JobState, MergeAllBody, Review, ReviewRow } from '@osier/contract';
import { leftMeanwhile } from '@osier/core/acts';
import { counted } from '@osier/core/changes';
import { formsOfMerge, mergedHeadings, suggestedForm } from '@osier/core/headings';
import { array, number, object } from 'yup';
import { ProblemError, wrong } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame } from '../http/reviewed';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import { pageOfGroups, type GroupsAsked } from '../projections/alike-groups';
import type { Services } from '../services';
import { lastEntry } from '../store/entries-since';
import type { Store } from '../store/store';
import { headingEvidence } from './evidence';
import { changedTogether, headingsFollowing } from './change-records';
import { MANY } from './merge';
import { asRefused, headingsMerging, mergeNow, type MergeNow } from './merging';
import { headingsInOrder, seeFromsOf } from './queries';
import { EVERY_HEADING } from './queries.find';

/** Groups that are merged through one review, at most. */
const MOST_GROUPS = 1000;
/** Groups of a chunk. */
const AT_ONCE = 20;

type Asked = Pick<MergeAllBody, 'of' | 'kind' | 'vocabulary'>;

/** A group that is the same by its forms and by its records; or why it is left. */
interface SameGroup {
  readonly id: number;
  readonly kept: { readonly id: number; readonly text: string };
  readonly lost: readonly { readonly id: number; readonly text: string }[];
  readonly records: number;
  readonly left: string | null;
}

/** The groups asked for that are the same, each with the form that is suggested to be kept; those that touch most records first. */
async function* sameGroups(store: Store, { kind, vocabulary }: Asked): AsyncGenerator<SameGroup> {
  const only: GroupsAsked = { kind, vocabulary, verdict: 'same' };
  let seen = 0;
  for (let after: { rank: number; id: number } | null = null; ;) {
    const page = await pageOfGroups(store, only, after, 100);
    if (page.length === 0) return;
    for (const group of page) {
      if (++seen > MOST_GROUPS) return;
      const { headings, pairs } = await headingEvidence(store, group.headings);
      const { id } = suggestedForm(headings);
      const records = headings.reduce((n, h) => n + h.records, 0);
      yield {
        ...{ id: group.id, records, kept: headings.find((h) => h.id === id)! },
        lost: headings.filter((h) => h.id !== id),
        left: headings.some((h) => h.merging)
          ? 'One of these is being merged now.'
          : records > MANY
            ? `More than ${MANY.toLocaleString('en-GB')} records: merge this group by itself.`
            : pairs.some((p) => p.verdict !== 'same')
              ? 'What their records say speaks against it: decide this group by itself.'
              : null,
      };
    }
    const last = page.at(-1)!;
    after = { rank: last.rank, id: last.id };
  }
}

/** The see-froms that records carry as headings, each with the heading that it leads to. */
async function* carriedSeeFroms(store: Store, { kind, vocabulary }: Asked): AsyncGenerator<SameGroup> {
  let seen = 0;
  for (let after: readonly [string, number] | null = null; ;) {
    const page = await headingsInOrder(store, {
      ...{ found: EVERY_HEADING, kind, only: 'see-froms', after, atMost: 200 },
    });
    if (page.length === 0) return;
    const leads = await seeFromsOf(
      store,
      page.map((h) => h.id),
    );
    const merging = await headingsMerging(store);
    for (const heading of page) {
      if (vocabulary && heading.vocabulary !== vocabulary) continue;
      if (++seen > MOST_GROUPS) return;
      const [kept, ...others] = leads.filter((l) => l.from === heading.id);
      if (!kept) continue;
      yield {
        ...{ id: heading.id, kept, lost: [heading], records: heading.records },
        left: [heading, kept].some((h) => merging.has(h.id))
          ? 'One of these is being merged now.'
          : others.length
            ? `It leads to ${counted(others.length + 1, 'heading')}: decide it by itself.`
            : heading.records > MANY
              ? `More than ${MANY.toLocaleString('en-GB')} records: merge this one by itself.`
              : null,
      };
    }
    const last = page.at(-1)!;
    after = [last.text, last.id];
  }
}

const groupsOf = (store: Store, asked: Asked): AsyncGenerator<SameGroup> =>
  asked.of === 'see-froms' ? carriedSeeFroms(store, asked) : sameGroups(store, asked);

/** What merging all groups that are the same would do: a row each group. */
export async function reviewMergeAll(
  { store: { aside: store } }: Services,
  asked: Asked,
  from = 0,
): Promise<Review> {
  const shown = await beginReview(store);
  const page = reviewPage<ReviewRow>(from);
  let [groups, lost, left] = [0, 0, 0];
  for await (const group of groupsOf(store, asked)) {
    shown.see(group);
    if (group.left === null) {
      groups++;
      lost += group.lost.length;
    } else left++;
    page.offer(group.left !== null, () => ({
      id: group.id,
      label: group.kept.text,
      detail: counted(group.records, 'record'),
      exception: group.left && `${group.left} It stays as it is.`,
      before: { text: group.lost.map((l) => l.text).join('\n') },
      after: group.left === null ? { text: group.kept.text } : null,
      canLeaveOut: group.left === null,
    }));
  }
  if (groups + left === 0)
    throw wrong(
      'groups',
      asked.of === 'see-froms'
        ? 'No record carries a see-from, so there is nothing to replace.'
        : 'No group is the same, so there is nothing to merge.',
    );
  return {
    sentence:
      asked.of === 'see-froms'
        ? `${counted(groups, 'see-from')} that records carry will be replaced by the kept form.`
        : `${counted(groups, 'group')} of headings that are the same will be merged: ${counted(lost, 'heading')} become see-froms.`,
    verb: asked.of === 'see-froms' ? 'Replace' : 'Merge',
    noun:
      asked.of === 'see-froms' ? { one: 'see-from', many: 'see-froms' } : { one: 'group', many: 'groups' },
    count: groups,
    consequences: left ? [`${left.toLocaleString('en-GB')} stay as they are; they are listed first.`] : [],
    ...page.take(),
    token: shown.token(),
  };
}

/** Begins merging all groups that are the same, but those left out. */
export async function beginMergeAll(
  services: Services,
  person: number,
  { token, leaveOut, ...asked }: MergeAllBody,
): Promise<JobState> {
  const { store, jobs } = services;
  // Gathered once: what is merged is what the digest of the review was made of.
  const asOf = token === undefined ? undefined : await lastEntry(store);
  const shown = await beginReview(store);
  const out = new Set(leaveOut);
  const groups: { kept: number; lost: number[] }[] = [];
  for await (const g of groupsOf(store.aside, asked)) {
    shown.see(g);
    if (g.left === null && !out.has(g.id)) groups.push({ kept: g.kept.id, lost: g.lost.map((l) => l.id) });
  }
  if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
  if (groups.length === 0) throw wrong('groups', 'No group is left to merge.');
  return jobs.begin(
    'merge-all',
    'Merging headings that are the same',
    person,
    { groups, asOf },
    groups.length,
  );
}

const mergeAllWork = object({
  groups: array(
    object({
      kept: number().integer().required(),
      lost: array(number().integer().required()).required(),
    }),
  ).required(),
});
interface Row {
  readonly place: number;
  readonly kept: number;
  readonly lost: readonly number[];
}

/** A group as it stands; null where it cannot be merged any more. */
async function stillMergeable(store: Store, { kept, lost }: Row): Promise<MergeNow | null> {
  try {
    const now = await mergeNow(store, { kept, lost: [...lost], form: undefined, taken: [] });
    asRefused(() => formsOfMerge(now));
    return now;
  } catch (error) {
    if (error instanceof ProblemError) return null;
    throw error;
  }
}

/** The merges of several groups in one change set; a record that carries headings of two of them is changed once. */
async function mergesTogether(store: Store, merges: readonly MergeNow[]) {
  const asked = merges.map((m) => ({ forms: formsOfMerge(m), changing: m.changing }));
  const records = await changedTogether(store, asked);
  const headings = merges.flatMap(mergedHeadings);
  const { along, made } = await headingsFollowing(
    store,
    asked.map((a) => a.forms),
    headings,
    records,
  );
  return { records, changes: [...records, ...headings, ...along, ...made] };
}

/** Job: merges groups of headings that are the same, as they were reviewed. */
export const mergeAllSame =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { groups } = keptWork(mergeAllWork, run.work);
    const totals = await inChunks<Row>({ ...services, store }, run, {
      did: (t) => ({
        act: 'merge-all',
        counts: {
          ...{ groups: t.groups ?? 0, headings: t.headings ?? 0, records: t.records ?? 0 },
          meanwhile: t.meanwhile,
        },
      }),
      next: (after) =>
        Promise.resolve(groups.slice(after, after + AT_ONCE).map((g, i) => ({ ...g, place: after + i + 1 }))),
      placeOf: (row) => row.place,
      objectsOf: (row) => [row.kept, ...row.lost].map((id) => ['heading', id] as const),
      plan: async (chunk, s) => {
        const merges: MergeNow[] = [];
        for (const row of chunk) {
          const merge = await stillMergeable(s, row);
          if (merge) merges.push(merge);
        }
        const { records, changes } = await mergesTogether(s, merges);
        return {
          changes,
          totals: {
            groups: merges.length,
            headings: merges.reduce((n, m) => n + m.lost.length, 0),
            records: records.length,
            meanwhile: chunk.length - merges.length,
          },
        };
      },
    });
    return `Merged ${counted(totals.groups ?? 0, 'group')} of headings: ${counted(totals.records ?? 0, 'record')} changed${leftMeanwhile(totals.meanwhile)}.`;
  };
