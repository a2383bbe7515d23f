import {
  copySearchBody,
  searchBody,
  type CopySearch,
  type FillPileBody,
  type JobState,
  type SearchBody,
} from '@osier/contract';
import { creation } from '@osier/core/changes';
import { countedOn, type PiledKind } from '@osier/core/piles';
import { facetsOf, foundBy, nextIdsFound, searched } from '../catalogue/found';
import { actSentence, quoted, searchName } from '@osier/core/acts';
import { copiesFound } from '../copies/list';
import { copyIdsBehind, recordsWithCopies } from '../copies/queries.list';
import { wrong } from '../http/problem';
import { CHUNK, inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { nameIsFree, newPile, pileThere } from './piles';
import { keptWork, type Totals } from '../jobs/kept-work';
import { boolean, mixed, number, object, string } from 'yup';
import { copiesOfRecords, pileWasThere } from './queries';
import { puttingOn } from './scan-onto';
import { pileAct } from './pile-act';

/** Starts putting all that a search finds on a pile; a new pile is begun with the first of it. */
export async function beginFillPile(
  { store, jobs }: Services,
  person: { id: number; name: string },
  { into, name, of, copies, ...search }: FillPileBody,
): Promise<JobState> {
  const { next, of: what } = await toPile(store, search, copies);
  if ((await next(store, 0)).length === 0)
    throw wrong('q', 'Nothing is found, so there is nothing to add to a pile.');
  if (into === null && name === '') throw wrong('name', 'Give the pile a name, or choose one that is there.');
  if (into === null) await nameIsFree(store, name);
  const pile =
    into === null ? newPile({ name, of, note: '' }, person.name) : (await pileThere(store, into)).value;
  const id = into ?? (await store.nextIds('pile', 1));
  const title = `Adding ${what} to the pile ${quoted(pile.name)}`;
  return jobs.begin('fill-pile', title, person.id, { id, pile, isNew: into === null, search, copies });
}

/** What is put on a pile, a piece at a time: records that a search finds, or copies of a list. */
async function toPile(store: Store, search: SearchBody, copies: CopySearch | undefined) {
  if (copies) {
    const query = await copiesFound(store, copies);
    const next = (s: Store, after: number) => copyIdsBehind(s, query, after, CHUNK);
    return {
      next,
      of: 'copies found',
      wanted: (s: Store, ids: readonly number[], of: PiledKind) =>
        of === 'copy' ? ids : recordsWithCopies(s, ids),
    };
  }
  const found = await foundBy(store, search);
  const facets = facetsOf(search);
  return {
    next: (s: Store, after: number) => nextIdsFound(s, found, facets, after),
    of: searchName(searched(search, found)),
    wanted: (s: Store, ids: readonly number[], of: PiledKind) =>
      of === 'record' ? ids : copiesOfRecords(s, ids, search.branch),
  };
}

const fillWork = object({
  id: number().integer().required(),
  pile: object({
    name: string().defined(),
    of: mixed<PiledKind>().oneOf(['record', 'copy']).required(),
    note: string().defined(),
    by: string().defined(),
    madeOn: string().defined(),
  }).required(),
  isNew: boolean().required(),
  search: searchBody.required(),
  copies: copySearchBody.optional().default(undefined),
});

/** Job: puts all that a search finds on a pile. */
export const fillPile =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { id, pile, isNew, search, copies } = keptWork(fillWork, run.work);
    const source = await toPile(store, search, copies);
    const did = (t: Totals) => pileAct(pile.name, { how: 'added', of: pile.of, count: t.added ?? 0 });
    const totals = await inChunks<number>({ ...services, store }, run, {
      did,
      next: (after, s) => source.next(s, after),
      placeOf: (found) => found,
      async plan(found, s) {
        const there = (await s.read('pile', id)) !== null;
        // A new pile is begun with the first piece, and not once more when somebody takes it away meanwhile.
        const begins = isNew && !(await pileWasThere(s, id));
        if (!there && !begins)
          throw wrong(
            'pile',
            `The pile ${quoted(pile.name)} was deleted meanwhile. Nothing more was added to it.`,
          );
        if (begins) await nameIsFree(s, pile.name);
        const wanted = await source.wanted(s, found, pile.of);
        const { changes, added, repeated } = await puttingOn(s, id, pile.of, wanted);
        return {
          changes: there ? changes : [creation('pile', id, pile), ...changes],
          totals: { added, repeated },
        };
      },
    });
    const already = totals.repeated ? ` ${countedOn(pile.of, totals.repeated)} were there already.` : '';
    return `${actSentence(did(totals))}.${already}`;
  };
