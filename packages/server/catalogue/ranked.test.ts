import { columnAt, FILING_TITLE } from '@osier/core/access';
import { isFound, isPlan, planOfTyped, type FindPlan } from '@osier/core/find';
import type { MarcRecord } from '@osier/core/marc';
import type { Store } from '../store/store';
import { startTesting } from '../testing/running';
import { withPlan } from './queries.find';
import type { SearchFacets } from './queries.found';
import { hitsOf } from './queries.hits';
import { pageInOrder, type AfterRecord, type PlacedRow } from './queries.pages';
import { pageRanked } from './queries.ranked';

let t: Awaited<ReturnType<typeof startTesting>>;
let store: Store;
let all: { readonly id: number; readonly marc: MarcRecord }[];
beforeAll(async () => {
  t = await startTesting();
  store = t.running.services.store;
  all = (await store.find('record')).map(({ id, value }) => ({ id: Number(id), marc: value }));
});
afterAll(() => t.stop());

const planFor = (q: string): FindPlan => {
  const plan = planOfTyped(q);
  if (!isPlan(plan)) throw new Error(plan.problem);
  return plan;
};

/** All pages of a search of which more is found than is ranked. */
async function ranked(q: string, most: number, facets: SearchFacets = {}): Promise<PlacedRow[]> {
  const found = withPlan(planFor(q));
  const hits = await hitsOf(store, found, facets, most);
  expect([q, hits.isMany, hits.n]).toEqual([q, true, most]);
  const rows: PlacedRow[] = [];
  for (let after: AfterRecord | null = null; ;) {
    const page = await pageRanked(store, found, hits, found.ranking!, { facets, after, atMost: 7 });
    rows.push(...page);
    const last = page.at(-1);
    if (!last) return rows;
    after = [last.rank, last.sort, last.id];
  }
}
const nothing = {
  holdings: [],
  copies: [],
  headings: [],
  findings: [],
  isSuppressed: false,
  entries: null,
  among: [],
};
const foundIn = (q: string): ReadonlySet<number> => {
  const plan = planFor(q);
  return new Set(all.filter((r) => isFound({ ...nothing, ...r }, plan)).map((r) => r.id));
};

test.each([
  ['willow', 40],
  ['bask', 25],
  ['the', 60],
  ['the willow', 15],
  ['willow basket', 8],
  ['title = willow', 20],
  ['title any "willow basket"', 20],
  ['willow and basket', 5],
])('of more than can be ranked: “%s”, of which %i are', async (q, most) => {
  const rows = await ranked(q, most);
  const ids = rows.map((r) => r.id);
  expect(new Set(ids).size).toBe(ids.length);
  // Nothing that the search does not find, and no less than is ranked.
  const found = foundIn(q);
  expect(ids.filter((id) => !found.has(id))).toEqual([]);
  expect(ids.length).toBeGreaterThanOrEqual(most);
  const keys = rows.map((r): [number, string, number] => [r.rank, r.sort, r.id]);
  expect(keys).toEqual(
    keys.toSorted(
      (a, b) => a[0] - b[0] || Buffer.compare(Buffer.from(a[1]), Buffer.from(b[1])) || a[2] - b[2],
    ),
  );
});

test.each(['willow', 'bask', 'the willow'])(
  '“%s”: titles that begin so come first, those beyond what is ranked too',
  async (q) => {
    const begin = all
      .map((r) => ({ id: r.id, sort: columnAt(FILING_TITLE, r.marc) }))
      .filter((r) => r.sort.startsWith(q) && foundIn(q).has(r.id));
    const rows = await ranked(q, 5);
    expect(
      rows
        .slice(0, begin.length)
        .map((r) => r.id)
        .toSorted((a, b) => a - b),
    ).toEqual(begin.map((r) => r.id).toSorted((a, b) => a - b));
    expect(rows.filter((r) => r.rank > 1).length).toBeLessThanOrEqual(5);
  },
);

test('a title that is the words but for its article comes first', async () => {
  const title = all
    .map((r) => columnAt(FILING_TITLE, r.marc))
    .find((sort) => /^\w+( \w+)?$/.test(sort) && foundIn(`the ${sort}`).size > 1)!;
  const found = withPlan(planFor(`the ${title}`));
  const hits = await hitsOf(store, found, {}, 1);
  const page = await pageRanked(store, found, hits, found.ranking!, { facets: {}, after: null, atMost: 1 });
  const those = all.filter((r) => columnAt(FILING_TITLE, r.marc) === title).map((r) => r.id);
  expect(those.filter((id) => foundIn(`"the" and "${title}"`).has(id))).toContain(page[0]?.id);
});

test('facets narrow what is ranked of very many', async () => {
  const rows = await ranked('willow', 10, { branch: 'MR' });
  const there = new Set(
    (await store.rows<{ record: number }>("SELECT record FROM holdings WHERE branch = 'MR'")).map(
      (h) => h.record,
    ),
  );
  expect(rows.every((r) => there.has(r.id))).toBe(true);
  expect(rows.length).toBeGreaterThanOrEqual(10);
});

test.each(['title', 'name', 'year', 'callnumber', 'added', 'changed'] as const)(
  'many by %s are walked to the last, each once, whether they are dense or not',
  async (by) => {
    for (const [q, facets] of [
      ['the', {}],
      ['willow', {}],
      ['willow', { language: 'eng' }],
      ['title = willow and year > 1950', {}],
      ['bask', { branch: 'MR' }],
    ] as const) {
      const found = withPlan(planFor(q));
      const wanted = (await hitsOf(store, found, facets)).n;
      for (const density of [0, 1]) {
        const hits = { ...(await hitsOf(store, found, facets, 5)), density };
        expect(hits.isMany).toBe(true);
        const ids: number[] = [];
        for (let after: AfterRecord | null = null; ;) {
          const page = await pageInOrder(
            store,
            found,
            hits,
            { by, descends: false },
            { facets, after, atMost: 50 },
          );
          ids.push(...page.map((r) => r.id));
          const last = page.at(-1);
          if (!last) break;
          after = [last.rank, last.sort, last.id];
        }
        expect([q, ids.length, new Set(ids).size]).toEqual([q, wanted, wanted]);
      }
    }
  },
);
