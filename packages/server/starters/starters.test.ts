import type { Problem, StarterRow } from '@osier/contract';
import { begunRecord, starterLine, STARTERS } from '@osier/core/editing';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let cataloguer: Ask;
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer] = [await t.as(1), await t.as(2)];
});
afterAll(() => t.stop());
const list = async () => (await cataloguer<StarterRow[]>('GET', '/starters')).body;
const body = (more: object = {}) => ({
  name: 'Trade catalogue',
  leader: '00000nam a2200000 i 4500',
  fixed: '',
  physical: [],
  lines: '245 10 $a $c ! Title\n\n264 #1 $b $c * Firm and year\n300 ## $a 1 folded sheet',
  ...more,
});

test('those of Osier are there from the beginning, each as it comes', async () => {
  const rows = await list();
  expect(rows.map((r) => r.key)).toEqual(Object.keys(STARTERS));
  expect(rows[0]).toEqual({ key: 'book', of: 'book', version: null, starter: STARTERS.book });
});

test('the library adds its own, changes and deletes it', async () => {
  const made = await head<{ id: number; sentence: string }>('POST', '/starters', body());
  expect([made.status, made.body.sentence]).toEqual([201, 'Made the starter “Trade catalogue”']);
  const own = (await list()).at(-1)!;
  expect(own.key).toBe(String(made.body.id));
  expect(own.starter.fields.map(starterLine)).toEqual([
    '245 10 $a $c ! Title',
    '264 #1 $b $c * Firm and year',
    '300 ## $a 1 folded sheet',
  ]);
  expect(begunRecord(own.starter, '2026-11-28', 'eng').fields.map((f) => f.tag)).toEqual(['008', '300']);
  const changed = await head('PUT', `/starters/${own.key}`, { ...body({ name: 'Price list' }), version: 1 });
  expect(changed.status).toBe(200);
  expect((await head('PUT', `/starters/${own.key}`, { ...body(), version: 1 })).status).toBe(409);
  expect((await head('POST', `/starters/${own.key}/remove`, { version: 2 })).status).toBe(200);
  expect(await list()).toHaveLength(9);
});

test('one that stands for another takes its place until it is deleted', async () => {
  const made = await head<{ id: number }>('POST', '/starters', body({ name: 'Our book', of: 'book' }));
  expect((await list()).map((r) => [r.key, r.starter.name])[0]).toEqual([String(made.body.id), 'Our book']);
  const second = await head<Problem>('POST', '/starters', body({ name: 'Our other book', of: 'book' }));
  expect([second.status, second.body.fields?.[0]?.field]).toEqual([422, 'of']);
  await head('POST', `/starters/${made.body.id}/remove`, { version: 1 });
  expect((await list())[0]!.key).toBe('book');
});

test.each([
  [{ lines: '245 10 $a Title\n24 Title' }, 'lines', /^Line 2 \(“24 Title”\) is no field/],
  [{ lines: ' ' }, 'lines', /^List the fields/],
  [{ name: ' ' }, 'name', /^Give the starter a name/],
  [{ leader: '00000nam' }, 'leader', /24 characters/],
  [{ of: 'scroll' }, 'of', /^Osier brings no starter/],
])('what is wrong is told at its field (%p)', async (more, field, message) => {
  const refused = await head<Problem>('POST', '/starters', body(more));
  expect(refused.status).toBe(422);
  expect(refused.body.fields).toEqual([{ field, message: expect.stringMatching(message) as string }]);
});

test('only the head sets them up', async () => {
  expect((await cataloguer('POST', '/starters', body())).status).toBe(403);
});
