import type { BookList, DeliveryRow, IncomingPage, NeighbourAnswer } from '@osier/contract';
import { isbns } from '@osier/core/access';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeLibrary } from '../../../demo/library';
import { booksToCatalogue, neighbourShelves } from '../../../demo/neighbours';
import { neighbourCatalogues } from '../../standins/neighbours';
import { client, kill, killAll, start } from '../testing/killing';
import { root, startTesting, type Ask } from '../testing/running';

const library = makeLibrary();
const shelves = neighbourShelves(library);
const books = booksToCatalogue(library).trim().split(/\r?\n/);
const has = (shelf: keyof typeof shelves, isbn: string) =>
  shelves[shelf].some((r) => isbns(r).includes(isbn));
const own = new Set(library.records.flatMap((r) => isbns(r.marc)));

let site: Server;
let address: { host: string; port: number };
let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  site = neighbourCatalogues(shelves, 0.02);
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
  address = { host: '127.0.0.1', port: (site.address() as AddressInfo).port };
  t = await startTesting({ neighbourHosts: new Map([['neighbours.wickmere.example', address]]) });
  cataloguer = await t.as(2);
});
afterAll(async () => {
  await t.stop();
  killAll();
  site.closeAllConnections();
  site.close();
});

const begin = async (name: string, codes: readonly string[]) =>
  (await cataloguer<{ list: number; job: number }>('POST', '/book-lists', { name, codes })).body;
const read = async (list: number) => (await cataloguer<BookList>('GET', `/book-lists/${list}`)).body;

test('many books are looked for: each is found, here already, not found or no ISBN, with the reason', async () => {
  const codes = [...books, 'not a number', '0317-8471'];
  const { list, job } = await begin('Trolley of the week', codes);
  expect((await t.jobDone(cataloguer, job)).state).toBe('done');
  const { rows, counts, ready } = await read(list);
  expect(rows.map((r) => r.code)).toEqual(codes);
  const seen = new Set<string>();
  for (const row of rows) {
    const expected =
      row.isbn === ''
        ? 'no number'
        : seen.has(row.isbn)
          ? 'twice'
          : own.has(row.isbn)
            ? 'here'
            : (['national', 'regional', 'school'] as const).some((s) => has(s, row.isbn))
              ? 'found'
              : row.state;
    expect([row.code, row.state]).toEqual([row.code, expected]);
    expect(row.reason).not.toBe('');
    if (row.state === 'found') expect(row.title).not.toBe('');
    if (row.state === 'here') expect(row.record).toBeGreaterThan(0);
    seen.add(row.isbn);
  }
  // In turn: what the first has is not asked of the second.
  const first = rows.find((r) => r.state === 'found' && has('national', r.isbn))!;
  expect(first.from).toBe('National Library of the Fens');
  expect(Object.values(counts).reduce((a, b) => a + b, 0)).toBe(codes.length);
  expect(ready).toBe(counts.found + counts.several);
  expect(counts.waiting).toBe(0);
  expect(counts.here).toBeGreaterThan(0);
  expect(counts['no number']).toBe(3);

  // What was found becomes a delivery, once.
  const made = (await cataloguer<{ delivery: number; job: number }>('POST', `/book-lists/${list}/deliver`))
    .body;
  expect((await t.jobDone(cataloguer, made.job)).state).toBe('done');
  const delivery = (await cataloguer<DeliveryRow>('GET', `/deliveries/${made.delivery}`)).body;
  expect(delivery).toMatchObject({ name: 'Trolley of the week (neighbours)', waiting: ready });
  const incoming = (await cataloguer<IncomingPage>('GET', `/deliveries/${made.delivery}/incoming`)).body;
  expect(incoming.rows.map((r) => r.isbn).sort()).toEqual(
    rows
      .filter((r) => r.state === 'found')
      .map((r) => r.isbn)
      .sort(),
  );
  expect((await cataloguer('POST', `/book-lists/${list}/deliver`)).status).toBe(422);
  expect((await read(list)).ready).toBe(0);

  // Those that were not found are looked for once more at those that failed.
  const again = await cataloguer<{ id: number }>('POST', `/book-lists/${list}/further`);
  expect(again.status).toBe(202);
  await t.jobDone(cataloguer, again.body.id);
  expect((await read(list)).counts.waiting).toBe(0);
  expect((await cataloguer<{ sentence: string }>('POST', `/book-lists/${list}/remove`)).body.sentence).toBe(
    'Deleted the list “Trolley of the week”',
  );
  expect((await cataloguer('GET', `/book-lists/${list}`)).status).toBe(404);
}, 120_000);

test('two who make a delivery of the same books at once make one', async () => {
  const { list, job } = await begin('Twice', books.slice(0, 3));
  await t.jobDone(cataloguer, job);
  const both = await Promise.all([1, 2].map(() => cataloguer('POST', `/book-lists/${list}/deliver`)));
  expect(both.map((b) => b.status).sort()).toEqual([202, 422]);
});

test('a record that is found by other words is chosen for its book, once it is in no delivery', async () => {
  const missing = '9781979900010';
  const { list, job } = await begin('By its title', [missing, books[0]!]);
  await t.jobDone(cataloguer, job);
  // Whether the last one it is asked of fails, is that one's habit.
  expect((await read(list)).rows[0]!.state).toMatch(/^(not found|failed)$/);
  const { body: answer } = await cataloguer<NeighbourAnswer>('GET', `/neighbours/1/find?text=${books[3]}`);
  const chosen = { neighbour: 1, marc: answer.records[0]!.marc };
  const put = (seq: number, body: unknown = chosen, ask = cataloguer) =>
    ask<{ sentence: string }>('PUT', `/book-lists/${list}/books/${seq}`, body);
  expect((await put(1)).body.sentence).toMatch(/^“.+” is chosen for book 1 of the list$/);
  expect((await read(list)).rows[0]).toMatchObject({
    ...{ state: 'found', from: 'National Library of the Fens' },
    reason: 'National Library of the Fens: chosen by Tobias Fenn.',
  });
  expect((await put(9)).status).toBe(422);
  expect((await put(1, { ...chosen, neighbour: 99 })).status).toBe(404);
  expect((await put(1, chosen, await t.as(3))).status).toBe(403);
  const made = (await cataloguer<{ delivery: number; job: number }>('POST', `/book-lists/${list}/deliver`))
    .body;
  await t.jobDone(cataloguer, made.job);
  expect((await put(1)).status).toBe(422);
  const { rows } = (await cataloguer<IncomingPage>('GET', `/deliveries/${made.delivery}/incoming`)).body;
  expect(rows).toHaveLength(2);
});

test('a list is not started with nothing, nor with too many, nor by an assistant', async () => {
  const assistant = await t.as(3);
  expect((await assistant('POST', '/book-lists', { name: 'N', codes: books })).status).toBe(403);
  expect((await cataloguer('POST', '/book-lists', { name: 'N', codes: [] })).status).toBe(422);
  expect((await cataloguer('POST', '/book-lists', { name: ' ', codes: books })).status).toBe(422);
  expect(
    (await cataloguer('POST', '/book-lists', { name: 'N', codes: Array.from({ length: 501 }, () => '1') }))
      .status,
  ).toBe(422);
  expect((await cataloguer('POST', '/book-lists/999/further')).status).toBe(404);
});

test('killed in the middle: the rest is looked for after the next start, and no book is lost or looked for twice', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-books-'));
  copyFileSync(join(root, '.cache/test-library/osier.sqlite'), join(folder, 'osier.sqlite'));
  const slow = neighbourCatalogues(shelves, 0.4);
  let searches = 0;
  slow.on('request', (req) => (searches += /query=/.test(req.url ?? '') ? 1 : 0));
  await new Promise<void>((done) => slow.listen(0, '127.0.0.1', done));
  process.env.OSIER_NEIGHBOUR_HOSTS = `neighbours.wickmere.example=127.0.0.1:${(slow.address() as AddressInfo).port}`;
  try {
    let server = await start(folder);
    const codes = shelves.national
      .map((r) => isbns(r)[0]!)
      .filter((n) => !own.has(n))
      .slice(0, 24);
    let ask = (await client(server)).ask;
    const body = JSON.stringify({ name: 'Killed', codes });
    const { list } = await ask<{ list: number; job: number }>('POST', '/book-lists', body);
    const state = () => ask<BookList>('GET', `/book-lists/${list}`);
    for (let i = 0; i < 200 && (await state()).counts.found < 5; i++)
      await new Promise((done) => setTimeout(done, 30));
    await kill(server);
    server = await start(folder);
    ask = (await client(server)).ask;
    const early = await state();
    expect(early.counts.found).toBeGreaterThanOrEqual(5);
    expect(early.counts.waiting).toBeGreaterThan(0);
    for (let i = 0; i < 400 && (await state()).counts.waiting > 0; i++)
      await new Promise((done) => setTimeout(done, 50));
    const { counts, rows } = await state();
    expect(counts).toMatchObject({ found: 24, waiting: 0 });
    expect(rows.every((r) => r.title !== '')).toBe(true);
    // Only what was on its way when it was killed is asked once more: six books at a time.
    expect(searches).toBeLessThanOrEqual(24 + 6);
    await kill(server);
  } finally {
    delete process.env.OSIER_NEIGHBOUR_HOSTS;
    slow.closeAllConnections();
    slow.close();
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
  }
}, 120_000);
