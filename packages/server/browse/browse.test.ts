import {
  BROWSE_LISTS,
  type BrowseList,
  type BrowsePage,
  type BrowseRow,
  type SearchAnswer,
} from '@osier/contract';
import { columnAt, FILING_TITLE, SERIES } from '@osier/core/access';
import { byKey } from '@osier/core/callnumbers';
import { creation } from '@osier/core/changes';
import { headingGroup, headingsOf } from '@osier/core/headings';
import { field, type MarcRecord } from '@osier/core/marc';
import { startTesting, type Ask } from '../testing/running';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';

let t: Awaited<ReturnType<typeof startTesting>>;
let ask: Ask;
let all: readonly { readonly id: number; readonly value: MarcRecord }[];
beforeAll(async () => {
  t = await startTesting();
  ask = await t.as(2);
  all = await t.running.services.store.select('record', '1 ORDER BY id');
});
afterAll(() => t.stop());

const page = async (list: string, query: Record<string, string> = {}) =>
  (await ask<BrowsePage>('GET', `/browse/${list}?${new URLSearchParams(query).toString()}`)).body;

/** A whole list, from its beginning on. */
async function walk(list: BrowseList): Promise<BrowseRow[]> {
  const rows: BrowseRow[] = [];
  for (let at = await page(list); ; at = await page(list, { behind: at.next })) {
    rows.push(...at.rows);
    if (at.next === null) return rows;
  }
}
/** All that is ahead of a place, read from there back to the beginning. */
async function back(list: BrowseList, place: string): Promise<BrowseRow[]> {
  const rows: BrowseRow[] = [];
  for (let to: string | null = place; to !== null;) {
    const at: BrowsePage = await page(list, { ahead: to });
    rows.unshift(...at.rows);
    to = at.before;
  }
  return rows;
}
const said = (rows: readonly BrowseRow[]) => rows.map((r) => [r.place, r.text, r.see]);

test.each(BROWSE_LISTS)('%s: to the last entry and back every one comes once, in one order', async (list) => {
  const on = await walk(list);
  expect(on.length).toBeGreaterThan(2);
  const last = on.at(-1)!.place;
  expect(said(await back(list, last))).toEqual(said(on.filter((r) => r.place !== last)));
  expect(new Set(on.map((r) => JSON.stringify([r.place, r.see]))).size).toBe(on.length);
});

test('behind the end there is nothing, and the way back from there', async () => {
  const { rows, before, next } = await page('name', { from: 'zzzzzz' });
  expect([rows, next]).toEqual([[], null]);
  expect((await page('name', { ahead: before! })).rows.at(-1)).toEqual((await walk('name')).at(-1));
});

test('call numbers stand as the shelf does, each title at each of its places', async () => {
  const on = await walk('callnumber');
  const rows = await t.running.services.store.rows<{ k: string; record: number }>(
    'SELECT DISTINCT shelf_key AS k, record FROM holdings',
  );
  const wanted = rows.sort((a, b) => byKey(a.k, b.k) || a.record - b.record).map((r) => r.record);
  expect(on.map((r) => r.to.as === 'record' && r.to.id)).toEqual(wanted);
});

test('titles are counted as a plain reading of every record counts them', async () => {
  const counts = new Map<string, number>();
  for (const { value } of all) {
    const key = columnAt(FILING_TITLE, value);
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const rows = await walk('title');
  expect(rows.map((r) => r.n)).toEqual([...counts].sort(([a], [b]) => byKey(a, b)).map(([, n]) => n));
  const several = rows.filter((r) => r.n > 1);
  for (const { to, n } of several.slice(0, 5)) {
    if (to.as !== 'search') throw new Error('Several records are searched for.');
    const { body } = await ask<SearchAnswer>('GET', `/records?q=${encodeURIComponent(to.q)}`);
    expect(body.total).toBe(n);
  }
});

test.each([
  ['name', ['personal', 'corporate', 'meeting']],
  ['subject', ['topic', 'place', 'period']],
  ['genre', ['genre']],
  ['titleheading', ['title', 'name-title']],
] as const)(
  '%s: every heading that a record carries is there with its number, and see-froms lead on',
  async (list, kinds) => {
    const counts = new Map<string, number>();
    for (const { value } of all)
      for (const h of headingsOf(value))
        if (kinds.some((k) => k === h.kind)) {
          const key = JSON.stringify([h.key, headingGroup(h)]);
          counts.set(key, (counts.get(key) ?? 0) + 1);
        }
    const rows = await walk(list);
    const found = new Map(
      rows.filter((r) => r.n > 0).map((r) => [Buffer.from(r.place, 'base64url').toString(), r.n]),
    );
    expect([...found].sort()).toEqual([...counts].sort());
  },
);

test('a see-from is shown as its authority record has it, and leads to the kept form', async () => {
  const [heading] = await t.running.services.store.select(
    'heading',
    "kind = 'personal' AND merged_into IS NULL ORDER BY id LIMIT 1",
  );
  const marc = {
    ...heading!.value.marc,
    fields: [
      ...heading!.value.marc.fields,
      {
        tag: '400',
        ind1: '1',
        ind2: ' ',
        subfields: [
          { code: 'a', value: 'Aardwolf, Zebedee,' },
          { code: 'd', value: '1900-' },
        ],
      },
    ],
  };
  const saved = await ask('PUT', `/headings/${heading!.id}`, { version: heading!.version, marc });
  expect(saved.status).toBe(200);
  const [first] = (await page('name', { from: 'aardwolf' })).rows;
  expect(first).toMatchObject({
    text: 'Aardwolf, Zebedee, 1900-',
    n: 0,
    to: { as: 'heading', id: heading!.id },
  });
  expect(first?.see).toMatch(/\w/);
});

test.each([
  ['title', 'The letters', /^letters/i],
  ['callnumber', '746.41', /^746\.41/],
  ['series', '', /./],
])('%s begins where %s would stand', async (list, from, first) => {
  const { rows, before } = await page(list, { from });
  expect(rows[0]?.text).toMatch(first);
  expect(before === null).toBe(from === '');
});

test('a place that was not given out, and a list that there is not, are told', async () => {
  for (const path of [
    'title?behind=zzz',
    'title?behind=WzFd',
    'callnumber?behind=WyJhIl0',
    'title?behind=WyJhIl0&ahead=WyJhIl0',
  ])
    expect([path, (await ask('GET', `/browse/${path}`)).status]).toEqual([path, 422]);
  expect((await ask('GET', '/browse/titel')).status).toBe(404);
});

test('a series is written as its records write it', async () => {
  const wanted = new Set(
    all.flatMap(({ value }) => SERIES.extract(value).map((v) => v.text)).filter(Boolean),
  );
  expect(new Set((await walk('series')).map((r) => r.text))).toEqual(wanted);
});

test('a subject with subdivisions stands behind the subject itself, before those with longer words, both ways', async () => {
  const { store } = t.running.services;
  const subjects = [
    ['Zinc works'],
    ['Zinc', 'z', 'Wick.'],
    ['Zinc and tin.'],
    ['Zinc.'],
    ['Zinc', 'x', 'History.'],
  ];
  const marc: MarcRecord = {
    leader: '00000nam a2200000 i 4500',
    fields: [
      ...subjects.map((more) => field('650', ' 0', 'a', ...more)),
      field('245', '00', 'a', 'A book of zinc'),
    ],
  };
  const record = creation('record', await store.nextIds('record', 1), marc);
  await commit(store, { did: TESTED, person: 1, changes: [record] });
  const filed = ['Zinc', 'Zinc — History', 'Zinc — Wick', 'Zinc and tin', 'Zinc works'];
  const { rows } = await page('subject', { from: 'zinc' });
  expect(rows.slice(0, 5).map((r) => r.text)).toEqual(filed);
  const { place } = rows[4]!;
  expect((await page('subject', { ahead: place })).rows.slice(-4).map((r) => r.text)).toEqual(
    filed.slice(0, 4),
  );
});
