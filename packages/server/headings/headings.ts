import type {
  HeadingDetail,
  HeadingList,
  HeadingPage,
  HeadingSearch,
  LookAlikePage,
  ShownHeading,
} from '@osier/contract';
import { headingPlanOfTyped, holdsWords, isPlan, type HeadingPlan } from '@osier/core/find';
import { formText, isEstablished, keptForm, seeFroms, takeableFields } from '@osier/core/headings';
import type { DataField } from '@osier/core/marc';
import { fold } from '@osier/core/text';
import { historyOfHeading } from '../daybook/entries';
import { notFound, wrong } from '../http/problem';
import { cursorOf, placeIn } from '../http/cursor';
import { countGroups, pageOfGroups, type GroupsAsked } from '../projections/alike-groups';
import { totals } from '../projections/counts';
import { countWaiting } from '../projections/look-alikes';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { headingsMerging } from './merging';
import {
  countHeadings,
  headingsByNumber,
  headingsInOrder,
  type AfterHeading,
  mergedInto,
  recordsUnder,
  seeFromsOf,
  unestablishedByUse,
  titlesUnder,
} from './queries';
import { headingsFound } from './queries.find';

const PAGE = 100;

/** What of headings is listed. */
export interface HeadingsAsked {
  readonly q?: string;
  readonly kind?: string;
  readonly only?: HeadingList;
  readonly after?: string;
}

/**
 * A page of the headings that words or a query find: in alphabetical order, those that only records have by how many do. Throws a 422 for a
 * query that cannot be answered.
 */
export async function listHeadings(
  { store }: Services,
  { q = '', kind, only, after: cursor }: HeadingsAsked,
): Promise<HeadingPage> {
  const plan = planOfHeadings(q);
  const asked = { found: await headingsFound(store, plan), kind, only, atMost: PAGE + 1 };
  const byUse = only === 'unestablished';
  const found = byUse
    ? await unestablishedByUse(store, { ...asked, after: placeIn<readonly [number, number]>(cursor, [0, 0]) })
    : await headingsInOrder(store, { ...asked, after: placeIn<AfterHeading>(cursor, ['', 0]) });
  const rows = found.slice(0, PAGE);
  const ids = rows.map((r) => r.id);
  const merging = await headingsMerging(store);
  const leads = only === 'see-froms' ? await seeFromsOf(store, ids) : [];
  const known = await formsWith(store, ids, plan);
  const last = rows.at(-1);
  return {
    rows: rows.map((r) => {
      const to = leads.find((l) => l.from === r.id);
      return {
        ...r,
        merging: merging.has(r.id),
        leadsTo: to ? { id: to.id, text: to.text } : null,
        knownAs: known.get(r.id) ?? null,
      };
    }),
    next: found.length > PAGE && last ? cursorOf([byUse ? last.records : last.text, last.id]) : null,
  };
}

/** What words or a query ask of headings; throws a 422 for what cannot be answered. */
function planOfHeadings(q: string): HeadingPlan {
  const plan = headingPlanOfTyped(q);
  if (!isPlan(plan)) throw wrong('q', plan.problem);
  return plan;
}

/** How many headings a search finds, counted to one more than `most`. */
export const countOfHeadings = async (
  store: Store,
  { q, kind, only }: HeadingSearch,
  most: number,
): Promise<number> =>
  countHeadings(store, { found: await headingsFound(store, planOfHeadings(q ?? '')), kind, only }, most);

/** The see-from of each heading that has the words by which it was found, where the kept form itself has not all of them. */
async function formsWith(
  store: Store,
  ids: readonly number[],
  plan: HeadingPlan,
): Promise<ReadonlyMap<number, string>> {
  if (plan.type !== 'words' || plan.column !== 'forms') return new Map();
  const has = (f: DataField): boolean => holdsWords(plan, [fold(formText(f))]);
  const held = await store.readMany('heading', ids);
  return new Map(
    held.flatMap(({ id, value }): [number, string][] => {
      const form = has(keptForm(value)) ? undefined : seeFroms(value).find(has);
      return form ? [[id, formText(form)]] : [];
    }),
  );
}

const TITLES_SHOWN = 4;

const GROUPS_SHOWN = 100;

/** Some headings as they stand beside others, by their numbers. */
export async function shownHeadings(
  store: Store,
  ids: readonly number[],
): Promise<ReadonlyMap<number, ShownHeading>> {
  const rows = await headingsByNumber(store, ids);
  const held = new Map((await store.readMany('heading', ids)).map((h) => [h.id, h.value]));
  const titles = await titlesUnder(store, ids, TITLES_SHOWN);
  const merging = await headingsMerging(store);
  return new Map(
    rows.flatMap((row) => {
      const heading = held.get(row.id);
      if (!heading) return [];
      const shown: ShownHeading = {
        ...{ ...row, merging: merging.has(row.id) },
        seeFrom: seeFroms(heading).map(formText),
        titles: titles.filter((t) => t.heading === row.id).map((t) => t.title),
        isEstablished: isEstablished(heading),
        takeable: takeableFields(heading.marc),
      };
      return [[row.id, shown] as const];
    }),
  );
}

/** What of look-alikes is asked for, and where the page begins: as `next` of the page before says. */
type LookAlikesAsked = GroupsAsked & { readonly after?: string };

/** A page of the groups of headings that look alike; those that are surest and touch most records first. */
export async function lookAlikeList(
  { store }: Services,
  { after: cursor, ...asked }: LookAlikesAsked,
): Promise<LookAlikePage> {
  const after = placeIn<readonly [rank: number, id: number]>(cursor, [0, 0]);
  const behind = after && { rank: after[0], id: after[1] };
  const found = await pageOfGroups(store, asked, behind, GROUPS_SHOWN + 1);
  const groups = found.slice(0, GROUPS_SHOWN);
  const shown = await shownHeadings(
    store,
    groups.flatMap((g) => g.headings),
  );
  const last = groups.at(-1);
  return {
    rows: groups.map((g) => ({
      headings: g.headings.flatMap((id) => shown.get(id) ?? []),
      pairs: [...g.pairs],
    })),
    next: found.length > GROUPS_SHOWN && last ? cursorOf([last.rank, last.id]) : null,
    total: (await totals(store))['look-alikes'],
    facets: (await countGroups(store)).map((f) => ({ ...f, later: f.later === 1 })),
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
    ...{ ...row, merging: (await headingsMerging(store)).has(id) },
    version: heading.version,
    marc: heading.value.marc,
    seeFrom: seeFroms(heading.value).map(formText),
    mergedFrom: merged,
    usedBy,
    findings: [...(await store.checkerNow()).check(heading.value.marc)],
    history: await historyOfHeading(store, id),
  };
}
