import {
  searchBody,
  type CleanRecordsBody,
  type JobState,
  type Review,
  type ReviewRow,
} from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted, update } from '@osier/core/changes';
import type { StoredObject } from '@osier/core/kinds';
import { leftMeanwhile, searchName } from '@osier/core/acts';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { reviewPage } from '../http/review-page';
import { beginReview, stillAsReviewed } from '../http/reviewed';
import { consequencesOf, treatmentOf, type Treatment } from '../recipes/treatments';
import type { Services } from '../services';
import { facetsOf, foundBy, nextFound, searched } from './found';
import { keptWork, leftOut } from '../jobs/kept-work';
import { object, string } from 'yup';
import { newHeadings } from './records';

/** What the treatment does to each record. The review and the act both come from here. */
const cleaned = (rows: readonly StoredObject<'record'>[], treatment: Treatment) =>
  rows.flatMap((row) => {
    const { marc, touched } = treatment.treat(row.value);
    return touched.length === 0 ? [] : [{ row, marc, touched }];
  });

/** What running a recipe over all that a search finds will do, worked out piece by piece. */
export async function reviewCleanRecords(
  { store: { aside: store } }: Services,
  { recipe, leaveOut: _, token: _t, ...search }: CleanRecordsBody,
  from = 0,
): Promise<Review> {
  const shown = await beginReview(store);
  const treatment = await treatmentOf({ recipe }, store);
  const named = new Map(treatment.parts.map((p) => [p.key, p.sentence]));
  const found = await foundBy(store, search);
  const facets = facetsOf(search);
  const touched: (readonly string[])[] = [];
  const page = reviewPage<ReviewRow>(from);
  let looked = 0;
  for (let after = 0; ;) {
    const piece = await nextFound(store, found, facets, after);
    if (piece.length === 0) break;
    looked += piece.length;
    after = piece.at(-1)!.id;
    for (const c of cleaned(piece, treatment)) {
      touched.push(c.touched);
      shown.see(c.row.id, c.row.version, c.touched);
      page.offer(false, () => ({
        id: c.row.id,
        label: briefOf(c.row.value).title,
        detail: [...new Set(c.touched)].map((t) => named.get(t)).join('; '),
        exception: null,
        before: { marc: c.row.value },
        after: { marc: c.marc },
        canLeaveOut: true,
      }));
    }
  }
  return {
    sentence: `“${treatment.name}” changes ${touched.length.toLocaleString('en-GB')} of ${counted(looked, 'record')}.`,
    verb: 'Clean',
    noun: { one: 'record', many: 'records' },
    count: touched.length,
    consequences: consequencesOf(treatment, touched, looked),
    ...page.take(),
    token: shown.token(),
  };
}

/** Starts running a recipe over all that a search finds. */
export async function beginCleanRecords(
  services: Services,
  person: number,
  { token, ...body }: CleanRecordsBody,
): Promise<JobState> {
  const { store, jobs } = services;
  const asOf = await stillAsReviewed(store, token, () => reviewCleanRecords(services, body));
  const { recipe, leaveOut, ...search } = body;
  const { name } = await treatmentOf({ recipe }, store);
  const of = searchName(searched(search, await foundBy(store, search)));
  return jobs.begin('clean-records', `Running “${name}” over ${of}`, person, {
    recipe,
    leaveOut,
    search,
    asOf,
  });
}

const cleanRecordsWork = object({
  search: searchBody.required(),
  recipe: string().required(),
  leaveOut: leftOut(),
});

/** Job: runs a recipe over all that a search finds, in the order of the record numbers. */
export const cleanRecords =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { search, recipe, ...asked } = keptWork(cleanRecordsWork, run.work);
    const leaveOut = new Set(asked.leaveOut);
    const treatment = await treatmentOf({ recipe }, store);
    const found = await foundBy(store, search);
    const facets = facetsOf(search);
    const of = searched(search, found);
    const totals = await inChunks<StoredObject<'record'>>({ ...services, store }, run, {
      did: (t) => ({
        act: 'clean-records',
        names: { recipe: treatment.name },
        counts: { changed: t.changed ?? 0, meanwhile: t.meanwhile },
        of,
      }),
      // Changing a record may take it out of what is found, never those behind it.
      next: (after, s) => nextFound(s, found, facets, after),
      placeOf: (row) => row.id,
      objectsOf: (row) => [['record', row.id]],
      plan: async (chunk, s) => {
        const rows = cleaned(
          chunk.filter((c) => !leaveOut.has(c.id)),
          treatment,
        );
        const headings = await newHeadings(
          s,
          rows.map((r) => r.marc),
        );
        return {
          changes: [...rows.map((r) => update('record', r.row, r.marc)), ...headings],
          totals: { changed: rows.length },
        };
      },
    });
    return totals.changed
      ? `“${treatment.name}” changed ${counted(totals.changed, 'record')}${leftMeanwhile(totals.meanwhile)}.`
      : `“${treatment.name}” had nothing to change.`;
  };
