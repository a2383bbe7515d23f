import type { Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { quoted, type Act } from '@osier/core/acts';
import { counted } from '@osier/core/changes';
import {
  formsOfMerge,
  headingText,
  mergedHeadings,
  mergedRecords,
  TAKEN_FIELDS,
  type TakenFields,
} from '@osier/core/headings';
import type { Change, ChangeSet, StoredObject } from '@osier/core/kinds';
import { array, mixed, number, object, string } from 'yup';
import { reviewPage } from '../http/review-page';
import { beginReview, changedSinceReview, showsTheSame, stillAsReviewed, type Shown } from '../http/reviewed';
import { CHUNK, inChunks } from '../jobs/in-chunks';
import { JobStopped, type JobWork } from '../jobs/jobs';
import { keptWork } from '../jobs/kept-work';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { carryingPieces, headingsAlong, headingsFollowing } from './change-records';
import { asRefused, headingsMerging, mergeNow, type MergeAsked, type MergeNow } from './merging';
import { countCarrying, recordsCarrying } from './queries';

/** From so many records on, a merge is work in the background. */
export const MANY = 1000;

/** The form that records carry afterwards. */
const formOf = (merge: MergeNow): string =>
  formsOfMerge(merge)
    .kept.subfields.map((s) => s.value)
    .join(' ');

function didMerge(merge: MergeNow, records: number): Act {
  const to = formOf(merge);
  return merge.lost.length
    ? { act: 'merge', names: { kept: to }, counts: { headings: merge.lost.length + 1, records } }
    : { act: 'change-heading', names: { from: headingText(merge.kept.value), to }, counts: { records } };
}

/** What a review of a merge tells of records: their versions, and why one should look twice. */
function seeRecords(shown: Shown, { records, notes }: ReturnType<typeof mergedRecords>): void {
  for (const c of records) shown.see(c.kind, c.id, c.version);
  for (const n of notes) shown.see(n.record, n.message);
}
const seeHeadings = (shown: Shown, merge: MergeNow): void => {
  for (const c of mergedHeadings(merge)) shown.see(c.kind, c.id, c.version, c.after);
};
const seeAlong = (shown: Shown, along: readonly Change<'heading'>[]): void => {
  for (const c of along) shown.see(c.kind, c.id, c.version, c.after);
};

/** What a merge would change, worked out piece by piece; a page of its rows from row `from` on. */
export async function reviewMerge(
  { store: { aside: store } }: Services,
  asked: MergeAsked,
  from = 0,
): Promise<Review> {
  const shown = await beginReview(store);
  const merge = await mergeNow(store, asked);
  const forms = asRefused(() => formsOfMerge(merge));
  const page = reviewPage<ReviewRow>(from);
  seeHeadings(shown, merge);
  let count = 0;
  for await (const piece of carryingPieces(store, merge.changing)) {
    const merged = mergedRecords(forms, piece);
    seeRecords(shown, merged);
    count += merged.records.length;
    const notes = new Map<number, string>();
    for (const n of merged.notes)
      notes.set(n.record, [notes.get(n.record), n.message].filter(Boolean).join(' '));
    for (const { id, before, after } of merged.records)
      page.offer(notes.has(id), () => recordRow(id, before!, after!, notes.get(id) ?? null));
  }
  for (const { id, before, after } of mergedHeadings(merge))
    page.offer(false, () => ({
      ...{ id: 0 - id, label: headingText(before!), exception: null, canLeaveOut: false },
      detail: id === merge.kept.id ? 'Authority record that is kept' : 'Authority record that leads to it',
      before: { marc: before!.marc },
      after: { marc: after!.marc },
    }));
  const along = await headingsAlong(store, [forms], mergedHeadings(merge));
  seeAlong(shown, along);
  for (const { id, before, after } of along)
    page.offer(false, () => ({
      ...{ id: 0 - id, label: headingText(before!), exception: null, canLeaveOut: false },
      detail: 'Authority record of a heading that goes on behind it',
      before: { marc: before!.marc },
      after: { marc: after!.marc },
    }));
  const gone = (merge.form ? [merge.kept] : []).map(
    (k) => `${quoted(headingText(k.value))} becomes a see-from.`,
  );
  return {
    sentence: `${counted(count, 'record')} will carry ${quoted(formOf(merge))}.`,
    verb: merge.lost.length ? 'Merge' : 'Change',
    noun: { one: 'heading', many: 'headings' },
    count: merge.lost.length + 1,
    consequences: [
      ...gone,
      ...merge.lost.map(
        (l) =>
          `${quoted(headingText(l.value))} becomes a see-from; its number ${l.id} leads to ${merge.kept.id}.`,
      ),
      ...(along.length
        ? [
            `Headings that go on behind it with a title or subdivisions get the kept form too (${counted(along.length, 'authority record')}).`,
          ]
        : []),
      ...(count > MANY
        ? ['This is done in the background; until it has ended the headings cannot be changed otherwise.']
        : []),
    ],
    ...page.take(),
    token: shown.token(),
  };
}

/** A record of a review. */
export function recordRow(
  id: number,
  before: NonNullable<Change<'record'>['before']>,
  after: NonNullable<Change<'record'>['after']>,
  exception: string | null,
): ReviewRow {
  const brief = briefOf(before);
  return {
    ...{ id, label: brief.title, exception, canLeaveOut: false },
    detail: [brief.author, brief.year].filter(Boolean).join(' · '),
    before: { marc: before },
    after: { marc: after },
  };
}

/** Merges headings into one: at once, or by a job where many records carry them. */
export async function merge(
  services: Services,
  person: number,
  { token, ...asked }: MergeAsked & { readonly token?: string },
): Promise<{ entry: number | null; sentence: string; job: number | null }> {
  const { store, jobs } = services;
  const now = await mergeNow(store, asked);
  asRefused(() => formsOfMerge(now));
  const many = await countCarrying(store, now.changing);
  if (many > MANY) {
    await stillAsReviewed(store, token, () => reviewMerge(services, asked));
    const title = `Merging headings into “${formOf(now)}”`;
    const { id } = await jobs.begin('merge-headings', title, person, { ...asked }, many);
    return { entry: null, sentence: `${title} (${counted(many, 'record')})`, job: id };
  }
  const done = await commitPlan(store, person, async (s) => {
    const shown = await beginReview(s);
    const { did, changes } = await wholeMerge(s, await mergeNow(s, asked), shown);
    if (token !== undefined && !showsTheSame(token, shown.token())) throw changedSinceReview();
    return { did, changes };
  });
  return { ...done, job: null };
}

/** A merge in one change set. */
async function wholeMerge(
  store: Store,
  now: MergeNow,
  shown?: Shown,
): Promise<{ did: Act; changes: ChangeSet }> {
  const forms = asRefused(() => formsOfMerge(now));
  if (shown) seeHeadings(shown, now);
  const records: Change<'record'>[] = [];
  for await (const piece of carryingPieces(store, now.changing)) {
    const merged = mergedRecords(forms, piece);
    if (shown) seeRecords(shown, merged);
    records.push(...merged.records);
  }
  const headings = mergedHeadings(now);
  const { along, made } = await headingsFollowing(store, [forms], headings, records);
  if (shown) seeAlong(shown, along);
  return { did: didMerge(now, records.length), changes: [...records, ...headings, ...along, ...made] };
}

const mergeWork = object({
  kept: number().integer().required(),
  lost: array(number().integer().required()).required(),
  form: string().optional(),
  taken: array(
    mixed<TakenFields>()
      .oneOf([...TAKEN_FIELDS])
      .required(),
  ).default([]),
});

/** Where the headings themselves are merged: behind all records. */
const LAST = Number.MAX_SAFE_INTEGER;
type MergeRow = StoredObject<'record'> | 'headings';

/**
 * Job: merges headings that many records carry, in the order of the records' numbers. The last chunk merges the headings, with every
 * record that has come to carry a lost form behind the work's back.
 */
export const mergeManyHeadings =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const asked = keptWork(mergeWork, run.work);
    const earlier = await headingsMerging(store, run.id);
    if ([asked.kept, ...asked.lost].some((id) => earlier.has(id)))
      throw new JobStopped('One of these headings is being merged already. Nothing was done.');
    const first = await mergeNow(store, asked, run.id);
    const totals = await inChunks<MergeRow>({ ...services, store }, run, {
      did: (t) => didMerge(first, t.changed ?? 0),
      next: async (after, s) => {
        if (after === LAST) return [];
        const ids = await recordsCarrying(s, first.changing, after, CHUNK);
        return ids.length ? s.readMany('record', ids) : ['headings'];
      },
      placeOf: (row) => (row === 'headings' ? LAST : row.id),
      plan: async (chunk, s) => {
        const now = await mergeNow(s, asked, run.id);
        if (chunk.includes('headings')) {
          const { changes } = await wholeMerge(s, now);
          return { changes, totals: { changed: changes.filter((c) => c.kind === 'record').length } };
        }
        const rows = chunk.filter((row) => row !== 'headings');
        const forms = formsOfMerge(now);
        const { records } = mergedRecords(forms, rows);
        const { along, made } = await headingsFollowing(s, [forms], mergedHeadings(now), records);
        return { changes: [...records, ...along, ...made], totals: { changed: records.length } };
      },
    });
    return run.cancelled()
      ? null
      : `Merged ${counted(first.lost.length + 1, 'heading')} into “${formOf(first)}”: ${counted(totals.changed ?? 0, 'record')} changed.`;
  };
