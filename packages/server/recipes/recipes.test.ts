import type { JobState, Problem, RecipeRow, Review } from '@osier/contract';
import { creation } from '@osier/core/changes';
import { field, type MarcRecord } from '@osier/core/marc';
import type { KeptRecipe } from '@osier/core/recipes';
import { readFileSync } from 'node:fs';
import { withTheirFields } from '../deliveries/incoming-records';
import { commitPlan } from '../store/commit';
import { demoFile, startTesting, type Ask } from '../testing/running';
import { TESTED } from '../testing/tested';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
});
afterAll(() => t.stop());

const steps = [
  { step: 'replace-text', tags: '264', codes: 'c', match: { find: '©' }, by: '' },
  {
    step: 'add-field',
    field: { tag: '590', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Tallow.' }] },
    ifAbsent: true,
    when: { has: '245$b' },
  },
];
const all = async () => (await cataloguer<RecipeRow[]>('GET', '/recipes')).body;

test('a recipe is kept, reads itself, runs on a delivery through the review, changes, goes, and comes back', async () => {
  const kept = (
    await cataloguer<{ id: number; entry: number }>('POST', '/recipes', { name: 'Tallow', steps })
  ).body;
  const row = (await all()).find((r) => r.id === String(kept.id))!;
  expect(row.steps.map((s) => s.sentence)).toEqual([
    'In every 264, delete “©” from $c',
    'Add 590 ## $aTallow., if there is no 590 yet, where the record has 245$b',
  ]);

  const { body: arrived } = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=t.mrc',
    readFileSync(demoFile('tallow-and-pike.mrc')),
  );
  await t.jobDone(cataloguer, arrived.job);
  const path = `/deliveries/${arrived.delivery}/clean`;
  const review = (await cataloguer<Review>('POST', `${path}/review`, { recipe: row.id })).body;
  expect(review.consequences).toHaveLength(2);
  expect(review.consequences[0]).toMatch(/^In every 264, delete “©” from \$c: \d+ records\.$/);
  const job = (await cataloguer<JobState>('POST', path, { recipe: row.id })).body;
  expect((await t.jobDone(cataloguer, job.id)).message).toContain(`${review.count} records`);

  const change = { name: 'Tallow and Pike', steps: steps.slice(1), version: row.version };
  expect((await cataloguer('PUT', `/recipes/${kept.id}`, change)).status).toBe(200);
  expect((await cataloguer('PUT', `/recipes/${kept.id}`, { ...change, name: 'Another' })).status).toBe(409);
  const now = (await all()).find((r) => r.id === row.id)!;
  expect([now.name, now.steps.length]).toEqual(['Tallow and Pike', 1]);

  const gone = await cataloguer<{ entry: number }>('POST', `/recipes/${kept.id}/remove`, {
    version: now.version,
  });
  expect(await all()).toHaveLength(1);
  await cataloguer('POST', `/daybook/${gone.body.entry}/undo`, {});
  expect((await all()).find((r) => r.id === row.id)!.name).toBe('Tallow and Pike');
});

test('a recipe of long ago that the engine cannot run is told before anything is done with it', async () => {
  const old: KeptRecipe = {
    name: 'Twice',
    steps: [
      { step: 'replace-text', tags: '245', codes: 'a', match: { find: '(a)\\1', expression: true }, by: 'a' },
    ],
  };
  const { store } = t.running.services;
  const { id } = await commitPlan(store, 2, async (s) => {
    const next = await s.nextIds('recipe', 1);
    return { did: TESTED, id: next, changes: [creation('recipe', next, old)] };
  });
  const work = { recipe: String(id) };
  const said: unknown = expect.stringMatching(
    /^The recipe “Twice” cannot be run\. Step 1: .*refers back to a group/,
  );
  const review = await cataloguer<Problem>('POST', '/deliveries/1/clean/review', work);
  expect([review.status, review.body.detail]).toEqual([422, said]);
  const { body: job } = await cataloguer<JobState>('POST', '/deliveries/1/clean', work);
  expect(await t.jobDone(cataloguer, job.id)).toMatchObject({ state: 'failed', message: said });
  expect((await cataloguer('POST', `/recipes/${id}/remove`, { version: 1 })).status).toBe(200);
});

test('a recipe goes to another library as a file and is the same there', async () => {
  const kept = (await cataloguer<{ id: number }>('POST', '/recipes', { name: 'For others', steps })).body;
  const file = await cataloguer('GET', `/recipes/${kept.id}/file`);
  const taken = await cataloguer<{ id: number }>('POST', '/recipes/import', {
    text: JSON.stringify(file.body),
  });
  const rows = await all();
  const of = (id: number) => rows.find((r) => r.id === String(id))!.steps;
  expect(of(taken.body.id)).toEqual(of(kept.id));
});

test.each<[string, unknown, RegExp]>([
  ['no name', { name: ' ', steps }, /name/],
  ['no step', { name: 'X', steps: [] }, /at least one step/],
  [
    'an expression the engine does not have',
    {
      name: 'X',
      steps: [
        {
          step: 'replace-text',
          tags: '245',
          codes: 'a',
          match: { find: '(a)\\1', expression: true },
          by: '',
        },
      ],
    },
    /^Step 1: .*refers back to a group/,
  ],
  ['a step that is none', { name: 'X', steps: [{ step: 'explode' }] }, /not as it should be/],
])('%s is refused with a sentence', async (_, body, said) => {
  const before = (await all()).length;
  const answer = await cataloguer<Problem>('POST', '/recipes', body);
  expect(answer.status).toBe(422);
  expect(answer.body.detail).toMatch(said);
  expect(await all()).toHaveLength(before);
});
test('an assistant keeps no recipe, and a file that is none is told', async () => {
  expect((await (await t.as(3))('POST', '/recipes', { name: 'X', steps })).status).toBe(403);
  const answer = await cataloguer<Problem>('POST', '/recipes/import', { text: 'hello' });
  expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('not JSON')]);
});

test('steps by doing are counted on the other waiting records of a delivery, each as running it alone would', async () => {
  // It came with the file that an earlier test delivered, of which every record waits still.
  const { id } = (await t.running.services.store.find('delivery', { order: [['id', 'DESC']], limit: 1 }))[0]!;
  const by = [
    { step: 'delete-field', tags: '650', which: 'all' },
    { step: 'add-field', field: field('590', '  ', 'a', 'Course 4.'), ifAbsent: true },
    { step: 'replace-text', tags: '245', codes: 'a', match: { find: 'no such text at all' }, by: '' },
  ];
  const { store } = t.running.services;
  const rows = await store.find('incoming', { where: { delivery: id, state: 'waiting' } });
  const waiting = (await withTheirFields(store, rows)).map((r): MarcRecord => r.fields.value.marc);
  const [first] = rows;
  const count = (besides?: number) =>
    cataloguer<{ counts: number[]; of: number; isAll: boolean }>('POST', `/deliveries/${id}/count-steps`, {
      steps: by,
      ...(besides && { besides }),
    });
  const having = (tag: string) => waiting.filter((m) => m.fields.some((f) => f.tag === tag)).length;
  const subjects = having('650');
  expect(subjects).toBeGreaterThan(0);
  expect((await count()).body).toEqual({
    counts: [subjects, waiting.length - having('590'), 0],
    of: waiting.length,
    isAll: true,
  });
  expect((await count(first!.id)).body.of).toBe(waiting.length - 1);
  const bad = await cataloguer('POST', `/deliveries/${id}/count-steps`, { steps: [{ step: 'explode' }] });
  expect(bad.status).toBe(422);
  expect((await (await t.as(3))('POST', `/deliveries/${id}/count-steps`, { steps: by })).status).toBe(403);
});
