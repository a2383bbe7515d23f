import type { CountedSearch, Problem, SavedSearchRow } from '@osier/contract';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let cataloguer: Ask;
let assistant: Ask;
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

const list = async (as: Ask) => (await as<SavedSearchRow[]>('GET', '/searches')).body;
const counted = async (as: Ask) => (await as<CountedSearch[]>('GET', '/searches/counted')).body;
const lost = {
  name: 'Lost at Millrace',
  of: 'record' as const,
  search: { q: 'status = lost', branch: 'MR' },
  isShared: false,
  onToday: true,
};
const keep = (as: Ask, body: object) =>
  as<{ id: number; entry: number } & Problem>('POST', '/searches', body);

test('a search is one’s own until it is shared, and Today tells how much it finds', async () => {
  const { body } = await keep(cataloguer, lost);
  expect(await list(cataloguer)).toMatchObject([
    { id: body.id, name: lost.name, isMine: true, search: lost.search },
  ]);
  expect(await list(assistant)).toEqual([]);
  const { body: found } = await cataloguer<{ total: number }>(
    'GET',
    '/records?q=status%20%3D%20lost&branch=MR',
  );
  expect(await counted(cataloguer)).toMatchObject([{ n: found.total, isMore: false, problem: '' }]);
  expect(await counted(assistant)).toEqual([]);

  const shared = { ...lost, isShared: true, version: 1 };
  expect((await cataloguer('PUT', `/searches/${body.id}`, shared)).status).toBe(200);
  expect(await list(assistant)).toMatchObject([{ id: body.id, isMine: false, isShared: true }]);
  expect(await counted(assistant)).toMatchObject([{ name: lost.name, n: found.total }]);
  await cataloguer('POST', `/searches/${body.id}/remove`, { version: 2 });
});

test('copies are counted as copies, by their own search', async () => {
  const search = { q: 'willow', status: 'available' };
  const { body } = await keep(assistant, { ...lost, name: 'Willow on the shelf', of: 'copy', search });
  const { body: found } = await assistant<{ total: number }>('GET', '/copies?q=willow&status=available');
  expect(found.total).toBeGreaterThan(0);
  expect(await counted(assistant)).toMatchObject([{ of: 'copy', n: found.total }]);
  const row = (await list(assistant))[0]!;
  await assistant('POST', `/searches/${body.id}/remove`, { version: row.version });
  expect(await counted(assistant)).toEqual([]);
});

test('what is not one’s own is not there, and what is shared only its keeper and the head can change', async () => {
  const { body: own } = await keep(cataloguer, { ...lost, name: 'Own' });
  const { body: shared } = await keep(cataloguer, { ...lost, name: 'For all', isShared: true });
  const change = (as: Ask, id: number, name: string) =>
    as<Problem>('PUT', `/searches/${id}`, { ...lost, name, isShared: true, version: 1 });
  expect((await change(assistant, own.id, 'Mine now')).status).toBe(404);
  expect((await change(head, own.id, 'Mine now')).status).toBe(404);
  const refused = await change(assistant, shared.id, 'Mine now');
  expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('or the head')]);
  expect((await assistant('POST', `/searches/${shared.id}/remove`, { version: 1 })).status).toBe(403);
  expect((await change(head, shared.id, 'For everybody')).status).toBe(200);
  expect((await list(cataloguer)).find((s) => s.id === shared.id)).toMatchObject({
    name: 'For everybody',
    isMine: true,
    version: 2,
  });
  expect((await change(cataloguer, shared.id, 'Late')).status).toBe(409);
});

test('saving, changing and deleting are entries of the daybook that can be undone', async () => {
  const { body } = await keep(cataloguer, { ...lost, name: 'To undo' });
  const gone = await cataloguer<{ entry: number }>('POST', `/searches/${body.id}/remove`, { version: 1 });
  const { body: entry } = await cataloguer<{ sentence: string }>('GET', `/daybook/${gone.body.entry}`);
  expect(entry.sentence).toBe('Deleted the search “To undo”');
  expect((await cataloguer('POST', `/daybook/${gone.body.entry}/undo`, {})).status).toBe(200);
  expect((await list(cataloguer)).map((s) => s.name)).toContain('To undo');
  expect((await keep(cataloguer, { ...lost, name: 'TO UNDO' })).body.detail).toMatch(
    /There is a saved search/,
  );
  expect((await keep(assistant, { ...lost, name: 'To undo' })).status).toBe(201);
});

test('a search whose pile has gone, or that was never one, is told instead of counted', async () => {
  await keep(cataloguer, { ...lost, name: 'Pile gone', search: { pile: '999' } });
  await keep(cataloguer, { ...lost, name: 'Cannot be read', search: { q: 'year > many' } });
  const by = new Map((await counted(cataloguer)).map((s) => [s.name, s]));
  expect(by.get('Pile gone')).toMatchObject({ n: null, problem: 'There is no pile 999.' });
  expect(by.get('Cannot be read')?.n).toBeNull();
  expect(by.get('Cannot be read')?.problem).toContain('year of four');
});

test('searches for holdings and headings are kept and counted as their lists count them', async () => {
  await keep(cataloguer, {
    ...lost,
    name: 'Willow at Millrace',
    of: 'holding',
    search: { q: 'willow', branch: 'MR' },
  });
  await keep(cataloguer, {
    ...lost,
    name: 'Bodies in use',
    of: 'heading',
    search: { q: 'records > 0', kind: 'corporate' },
  });
  await keep(cataloguer, { ...lost, name: 'Wrong list', of: 'heading', search: { only: 'none-such' } });
  const by = new Map((await counted(cataloguer)).map((s) => [s.name, s]));
  const holdings = await cataloguer<{ total: number }>('GET', '/holdings?q=willow&branch=MR');
  expect(by.get('Willow at Millrace')).toMatchObject({ of: 'holding', n: holdings.body.total, problem: '' });
  const headings = await cataloguer<{ rows: unknown[] }>(
    'GET',
    '/headings?q=records%20%3E%200&kind=corporate',
  );
  expect(by.get('Bodies in use')).toMatchObject({ of: 'heading', n: headings.body.rows.length, problem: '' });
  expect(holdings.body.total * headings.body.rows.length).toBeGreaterThan(0);
  expect(by.get('Wrong list')?.n).toBeNull();
});

test.each([
  ['no name', { name: ' ' }],
  ['no list', { of: 'pile' }],
  ['no search', { search: 'status = lost' }],
  ['a part that is no text', { search: { q: 7 } }],
  ['a part of no name', { search: { 'q q': 'x' } }],
  ['too much', { search: { q: 'x'.repeat(501) } }],
  ['a search for nothing', { search: {} }],
])('%s is refused', async (_, part) => {
  expect((await keep(cataloguer, { ...lost, name: 'Refused', ...part })).status).toBe(422);
  expect((await list(cataloguer)).map((s) => s.name)).not.toContain('Refused');
});
