import type { Done, HeadingPage, JobState, Problem, Review } from '@osier/contract';
import { creation } from '@osier/core/changes';
import { headingFrom, headingsOf, type Heading } from '@osier/core/headings';
import type { Change } from '@osier/core/kinds';
import { field, type DataField, type MarcRecord } from '@osier/core/marc';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { catalogueOf, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  await addThem();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());

const person = (tag: string, a: string) => field(tag, '1 ', 'a', a);
const ids = new Map<string, number>();

/** Headings: two that only records have, an established one with a see-from that records carry, one without records that sees another. */
async function addThem(): Promise<void> {
  const { store } = t.running.services;
  const title = field('245', '10', 'a', 'Tools');
  const made: MarcRecord[] = [
    ['Zreed, A.'],
    ['Zreed, A.'],
    ['Zreed, Amos'],
    ['Zsallow, Ida'],
    ['Zsallow, Ida'],
    ['Zsallow, Ida'],
  ].map(([name]) => ({ leader: '00000nam a2200000 i 4500', fields: [person('100', name!), title] }));
  const uses = new Map(made.flatMap(headingsOf).map((u) => [u.key, headingFrom(u)]));
  const established = (heading: Heading, ...more: DataField[]): Heading => ({
    ...heading,
    marc: { ...heading.marc, fields: [...heading.marc.fields, ...more] },
  });
  const named = (name: string, ...more: DataField[]) =>
    established(headingFrom(headingsOf({ leader: '', fields: [person('100', name)] })[0]!), ...more);
  const headings = [
    ...[...uses.values()].map((h) =>
      h.marc.fields.some((f) => 'subfields' in f && f.subfields[0]!.value === 'Zreed, Amos')
        ? established(h, person('400', 'Zreed, A.'), person('500', 'Zsallow, Ida'))
        : h,
    ),
    named('Zwithy, Una', field('670', '  ', 'a', 'Her letters'), person('500', 'Znobody, Known')),
    named('Zempty, Name'),
  ];
  const first = await store.nextIds('heading', headings.length);
  const from = await store.nextIds('record', made.length);
  const changes: Change[] = [
    ...headings.map((h, i) => creation('heading', first + i, h)),
    ...made.map((m, i) => creation('record', from + i, m)),
  ];
  await commit(store, { did: TESTED, person: 1, changes });
  for (const { id, text } of await store.rows<{ id: number; text: string }>('SELECT id, text FROM headings'))
    ids.set(text, id);
}
const list = async (only: string, more = '') =>
  (await cataloguer<HeadingPage>('GET', `/headings?only=${only}${more}`)).body.rows;
const all = async (only: string): Promise<string[]> => {
  const found: string[] = [];
  for (let after = ''; ;) {
    const { rows, next } = (await cataloguer<HeadingPage>('GET', `/headings?only=${only}&after=${after}`))
      .body;
    found.push(...rows.map((r) => r.text));
    if (!next) return found;
    after = next;
  }
};
const texts = async (only: string) => (await all(only)).filter((text) => text.startsWith('Z'));

test('lists of what is to be looked after', async () => {
  expect((await list('see-froms')).map((r) => [r.text, r.leadsTo?.text, r.records])).toEqual([
    ['Zreed, A.', 'Zreed, Amos', 2],
  ]);
  expect(await texts('blind')).toEqual(['Zwithy, Una']);
  expect(await texts('without-records')).toEqual(['Zempty, Name', 'Zwithy, Una']);
  expect(await texts('nowhere')).toEqual(['Zwithy, Una']);
  // One that no record carries is in no order of use.
  expect(await texts('unestablished')).toEqual(['Zsallow, Ida', 'Zreed, A.']);
  expect((await list('unestablished', '&q=zsallow')).map((r) => r.records)).toEqual([3]);
  const topics = await list('unestablished', '&kind=topic');
  expect(topics.map((h) => h.records)).toEqual(topics.map((h) => h.records).sort((a, b) => b - a));
  expect(new Set(topics.map((h) => h.kind))).toEqual(new Set(['topic']));
  expect((await cataloguer('GET', '/headings?only=nonsense')).status).toBe(422);
});

test('see-froms that records carry are replaced at once, and come back', async () => {
  const before = await catalogueOf(t.running);
  const asked = { of: 'see-froms' };
  const review = (await cataloguer<Review>('POST', '/headings/merge-all/review', asked)).body;
  expect(review).toMatchObject({
    sentence: '1 see-from that records carry will be replaced by the kept form.',
    verb: 'Replace',
    count: 1,
  });
  const { body } = await cataloguer<JobState>('POST', '/headings/merge-all', {
    ...asked,
    token: review.token,
  });
  const done = await t.jobDone(cataloguer, body.id);
  expect(done.message).toMatch(/2 records changed/);
  expect(await list('see-froms')).toEqual([]);
  const none = await cataloguer<Problem>('POST', '/headings/merge-all/review', asked);
  expect(none.body.detail).toMatch(/No record carries a see-from/);
  const undoing = await cataloguer<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, {});
  if (undoing.body.job) await t.jobDone(cataloguer, undoing.body.job);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('headings without records are deleted; one that records carry, or that others lead to, stays', async () => {
  const before = await catalogueOf(t.running);
  const headings = ['Zempty, Name', 'Zsallow, Ida', 'Zwithy, Una'].map((name) => ids.get(name)!);
  const review = (await cataloguer<Review>('POST', '/headings/delete/review', { headings })).body;
  expect(review.rows.map((r) => r.exception)).toEqual(['3 records carry it. It stays.', null, null]);
  const done = await cataloguer<Done>('POST', '/headings/delete', { headings, token: review.token });
  expect(done.body.sentence).toMatch(/^Deleted 2 headings, “.+” among them$/);
  expect(await texts('without-records')).toEqual([]);
  const again = await cataloguer<Problem>('POST', '/headings/delete', { headings: [headings[1]] });
  expect([again.status, again.body.detail]).toEqual([422, '3 records carry it.']);
  expect((await cataloguer('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});
