import type {
  Problem,
  RegisterRow,
  Review,
  SetUp,
  Today,
  WithdrawalList,
  WithdrawalRow,
} from '@osier/contract';
import { creation, update } from '@osier/core/changes';
import { parse } from 'papaparse';
import { commit } from '../store/commit';
import { TESTED } from '../testing/tested';
import { readFileSync } from 'node:fs';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());
afterEach(async () => {
  // A copy on two open lists is stopped.
  for (const id of started.splice(0)) await cataloguer!('DELETE', `/withdrawal-lists/${id}`);
});
const started: number[] = [];
const trolley = readFileSync(demoFile('trolley-of-discards.txt'), 'utf8').trim().split('\n');

let lists = 0;
const start = async (codes: string[]) => {
  const { body } = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    name: `Trolley ${++lists}`,
    branch: 'MR',
    reason: 'worn',
  });
  started.push(body.id);
  await cataloguer!('POST', `/withdrawal-lists/${body.id}/scans`, { codes });
  return body.id;
};
const list = async (id: number) => (await cataloguer!<WithdrawalList>('GET', `/withdrawal-lists/${id}`)).body;

test('a trolley: verdicts with reasons, the clear ones withdrawn, the register kept, all taken back', async () => {
  const before = await catalogueOf(t.running);
  const id = await start(trolley);
  const { verdicts, loansDesk } = await list(id);
  expect(loansDesk).toBe(true);
  expect(verdicts).toHaveLength(trolley.length);
  const reasons = verdicts.flatMap((v) => v.reasons.map((r) => r.code));
  for (const code of ['on-loan', 'other-branch', 'scanned-twice', 'not-ours', 'lost', 'last-anywhere'])
    expect(reasons).toContain(code);
  expect(verdicts.find((v) => v.reasons[0]?.code === 'not-ours')!.reasons[0]!.message).toContain(
    'Nearly the same',
  );

  const chosen = verdicts.filter((v) => v.verdict === 'clear').map((v) => v.candidate!.copyId);
  expect(chosen.length).toBeGreaterThan(5);
  const review = (
    await cataloguer!<Review>('POST', `/withdrawal-lists/${id}/withdraw/review`, { copies: chosen })
  ).body;
  expect([review.verb, review.count, review.noun.many]).toEqual(['Withdraw', chosen.length, 'copies']);
  expect((await cataloguer!('POST', `/withdrawal-lists/${id}/withdraw`, { copies: chosen })).status).toBe(
    403,
  );
  const done = await head!<{ entry: number }>('POST', `/withdrawal-lists/${id}/withdraw`, { copies: chosen });
  expect(done.status).toBe(200);
  expect((await catalogueOf(t.running)).copies).toHaveLength(before.copies!.length - chosen.length);
  const register = async () => (await head!<{ rows: RegisterRow[] }>('GET', '/register')).body.rows;
  expect(await register()).toHaveLength(chosen.length);
  expect(
    (await head!<{ as: string }>('GET', `/look-up?q=${verdicts.find((v) => v.verdict === 'clear')!.code}`))
      .body.as,
  ).toBe('withdrawn');

  expect((await cataloguer!<Problem>('POST', `/daybook/${done.body.entry}/undo`)).status).toBe(403);
  const undone = await head!<{ entry: number }>('POST', `/daybook/${done.body.entry}/undo`);
  expect(undone.status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
  expect((await register()).every((r) => r.restored)).toBe(true);
  expect((await cataloguer!('POST', `/daybook/${undone.body.entry}/undo`)).status).toBe(403);
  expect((await head!('POST', `/daybook/${undone.body.entry}/undo`)).status).toBe(200);
  expect((await register()).some((r) => r.restored)).toBe(false);
});

test('the last copy anywhere takes holding and record along, and comes back with them', async () => {
  const before = await catalogueOf(t.running);
  const id = await start(trolley);
  const last = (await list(id)).verdicts.find((v) => v.lastAnywhere)!;
  const review = (
    await head!<Review>('POST', `/withdrawal-lists/${id}/withdraw/review`, {
      copies: [last.candidate!.copyId],
    })
  ).body;
  expect(review.consequences.join(' ')).toContain('union catalogue');
  const { body } = await head!<{ entry: number }>('POST', `/withdrawal-lists/${id}/withdraw`, {
    copies: [last.candidate!.copyId],
  });
  expect((await head!('GET', `/records/${last.candidate!.recordId}`)).status).toBe(404);
  await head!('POST', `/daybook/${body.entry}/undo`);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('a stopped copy does not go, whatever is asked', async () => {
  const id = await start(trolley);
  const stopped = (await list(id)).verdicts.find((v) => v.reasons[0]?.code === 'on-loan')!;
  const refused = await head!<Problem>('POST', `/withdrawal-lists/${id}/withdraw`, {
    copies: [stopped.candidate!.copyId],
  });
  expect(refused.status).toBe(422);
  expect(refused.body.detail).toContain('On loan');
});

test('a scan can be taken off; an assistant scans, and does no more', async () => {
  const id = await start(trolley.slice(0, 2));
  const [row] = (await list(id)).verdicts;
  await cataloguer!('DELETE', `/withdrawal-lists/${id}/scans/${row!.scan}`);
  expect((await list(id)).verdicts).toHaveLength(1);
  const scanned = await assistant!('POST', `/withdrawal-lists/${id}/scans`, { codes: ['1'] });
  expect(scanned.status).toBe(200);
  const refused = [
    await assistant!('POST', '/withdrawal-lists', { name: 'x', branch: 'MR' }),
    await assistant!('DELETE', `/withdrawal-lists/${id}/scans/${row!.scan}`),
    await assistant!('PUT', `/withdrawal-lists/${id}`, { version: 1, name: 'x', branch: 'MR' }),
    await assistant!('POST', `/withdrawal-lists/${id}/fill`, { pile: 1 }),
    await assistant!('POST', `/withdrawal-lists/${id}/withdraw/review`, { copies: [1] }),
  ];
  expect(refused.map((r) => r.status)).toEqual(refused.map(() => 403));
});

test('a scan is answered with its verdict, the same as the list has; each person undoes their own last scan', async () => {
  const id = await start([]);
  const answered: WithdrawalRow[] = [];
  for (const code of trolley.slice(0, 12)) {
    const { body } = await assistant!<{ added: number; verdicts: WithdrawalRow[] }>(
      ...(['POST', `/withdrawal-lists/${id}/scans`, { codes: [code] }] as const),
    );
    expect(body.added).toBe(1);
    answered.push(...body.verdicts);
  }
  const { verdicts } = await list(id);
  const said = (rows: readonly WithdrawalRow[]) => rows.map((v) => [v.code, v.verdict, v.reasons, v.again]);
  expect(said(answered)).toEqual(said(verdicts));
  expect(new Set(answered.map((v) => v.verdict)).size).toBeGreaterThan(1);
  await cataloguer!('POST', `/withdrawal-lists/${id}/scans`, { codes: [trolley[12]!] });
  const undo = async (who: Ask) =>
    (await who<{ code: string | null }>('POST', `/withdrawal-lists/${id}/scans/undo`)).body.code;
  expect(await undo(assistant!)).toBe(verdicts.at(-1)!.code);
  expect(await undo(head!)).toBeNull();
  expect((await list(id)).verdicts).toHaveLength(12);
  expect((await list(id)).verdicts.at(-1)!.code).toBe((await list(id)).verdicts[11]!.code);
});

test('a list of another branch’s copies becomes that branch’s; on two open lists a copy stops', async () => {
  const store = t.running.services.store;
  const rows = await store.rows<{ barcode: string }>(
    "SELECT c.barcode FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'SH' AND c.status = 'available' ORDER BY c.id LIMIT 6",
  );
  const id = await start(rows.map((r) => r.barcode));
  const codesOf = async () => (await list(id)).verdicts.map((v) => v.reasons.map((r) => r.code));
  expect((await codesOf()).every((c) => c.includes('other-branch'))).toBe(true);
  const { version, name, reason } = await list(id);
  const change = (body: object) =>
    cataloguer!<Problem>('PUT', `/withdrawal-lists/${id}`, { version, name, reason, branch: 'SH', ...body });
  expect((await change({ branch: 'NOWHERE' })).body.fields?.[0]?.field).toBe('branch');
  expect((await change({})).status).toBe(200);
  expect((await change({ reason: 'else' })).status).toBe(409);
  expect((await codesOf()).flat()).not.toContain('other-branch');
  const other = await start([rows[0]!.barcode]);
  expect((await list(other)).verdicts[0]!.reasons.map((r) => r.code)).toContain('on-other-list');
  expect((await codesOf())[0]).toContain('on-other-list');
  await cataloguer!('POST', `/withdrawal-lists/${other}/scans/undo`);
  expect((await codesOf())[0]).not.toContain('on-other-list');
});

test('a list is deleted, and undoing brings it back with its scans', async () => {
  const id = await start(trolley.slice(0, 3));
  const gone = await cataloguer!<{ entry: number }>('DELETE', `/withdrawal-lists/${id}`);
  expect(gone.status).toBe(200);
  expect((await cataloguer!('GET', `/withdrawal-lists/${id}`)).status).toBe(404);
  expect((await cataloguer!('POST', `/daybook/${gone.body.entry}/undo`)).status).toBe(200);
  expect((await list(id)).verdicts).toHaveLength(3);
});

test('the copies of a pile are put on a list', async () => {
  const store = t.running.services.store;
  const copies = await store.rows<{ id: number; barcode: string }>(
    'SELECT id, barcode FROM copies ORDER BY id LIMIT 5',
  );
  const pile = (await cataloguer!<{ id: number }>('POST', '/piles', { name: 'Worn out', of: 'copy' })).body
    .id;
  await cataloguer!('POST', `/piles/${pile}/scans`, { codes: copies.map((c) => c.barcode) });
  const id = await start([]);
  const filled = await cataloguer!('POST', `/withdrawal-lists/${id}/fill`, { pile });
  expect([filled.status, filled.body]).toEqual([200, { added: 5 }]);
  expect((await list(id)).verdicts.map((v) => v.code).sort()).toEqual(copies.map((c) => c.barcode).sort());
  expect((await cataloguer!('POST', `/withdrawal-lists/${id}/fill`, { pile: 999_999 })).status).toBe(404);
});

test('the copies of a search are put on a list, those that are on it already not again', async () => {
  const store = t.running.services.store;
  const copies = await store.rows<{ barcode: string }>(
    "SELECT barcode FROM copies WHERE branch = 'SH' AND status = 'lost' ORDER BY id",
  );
  expect(copies.length).toBeGreaterThan(2);
  const id = await start([copies[0]!.barcode]);
  const fill = (found: object) => cataloguer!<Problem>('POST', `/withdrawal-lists/${id}/fill`, { found });
  const filled = await fill({ q: 'status = lost', branch: 'SH' });
  expect([filled.status, filled.body]).toEqual([200, { added: copies.length - 1 }]);
  expect((await list(id)).verdicts.map((v) => v.code).sort()).toEqual(copies.map((c) => c.barcode).sort());
  const [none, wrong] = [await fill({ q: 'title = zzzz' }), await fill({ q: 'year = x' })];
  expect([none.status, wrong.status]).toEqual([422, 422]);
  expect(JSON.stringify(none.body)).toContain('The search finds no copy with a barcode.');
  expect(JSON.stringify(wrong.body)).toContain('no year of four digits');
});

test('the head overrules what stops a copy, with a reason that the register keeps; nobody else does', async () => {
  const before = await catalogueOf(t.running);
  const id = await start(trolley);
  const { verdicts } = await list(id);
  const copy = verdicts.find((v) => v.overrulable)!.candidate!.copyId;
  const lent = verdicts.find((v) => v.reasons[0]?.code === 'on-loan')!.candidate!.copyId;
  const path = `/withdrawal-lists/${id}/withdraw`;
  const body = (of: number, reason = 'It is in my hand.') => ({
    copies: [of],
    overrule: { copies: [of], reason },
  });
  expect((await cataloguer!('POST', `${path}/review`, body(copy))).status).toBe(422);
  expect((await head!('POST', path, { copies: [copy] })).status).toBe(422);
  expect((await head!('POST', path, body(copy, ''))).status).toBe(422);
  expect((await head!<Problem>('POST', path, body(lent))).body.detail).toMatch(/On loan/);
  const review = (await head!<Review>('POST', `${path}/review`, body(copy))).body;
  const done = await head!<{ entry: number }>('POST', path, { ...body(copy), token: review.token });
  expect(done.status).toBe(200);
  const [row] = (await head!<{ rows: RegisterRow[] }>('GET', '/register')).body.rows;
  expect(row!.withdrawn).toMatchObject({ copyId: copy, overruled: 'It is in my hand.' });
  expect(row!.withdrawn.despite?.join(' ')).toMatch(/Belongs to|reserve|transit/);
  await head!('POST', `/daybook/${done.body.entry}/undo`);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('single copies come back at any later time, with holding and record; what is in the way is told', async () => {
  const before = await catalogueOf(t.running);
  const standing = await t.running.services.store.rows<{ barcode: string }>(
    "SELECT c.barcode FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'MR' AND c.status = 'available' ORDER BY c.id LIMIT 80",
  );
  const id = await start(standing.map((c) => c.barcode));
  const { verdicts } = await list(id);
  const last = verdicts.find((v) => v.lastAnywhere)!.candidate!;
  const [one, two] = verdicts.filter((v) => v.verdict === 'clear').map((v) => v.candidate!);
  const copies = [last.copyId, one!.copyId, two!.copyId];
  const done = await head!<{ entry: number }>('POST', `/withdrawal-lists/${id}/withdraw`, { copies });
  expect(done.status).toBe(200);
  const register = (await head!<{ rows: RegisterRow[] }>('GET', '/register')).body.rows;
  const rowOf = (copy: number) => register.find((r) => r.withdrawn.copyId === copy && !r.restored)!;
  const restore = (rows: readonly number[], token?: string) =>
    head!<{ entry: number; sentence: string } & Problem>('POST', '/register/restore', { rows, token });
  const rows = [rowOf(last.copyId).id, rowOf(one!.copyId).id];
  expect((await cataloguer!('POST', '/register/restore', { rows })).status).toBe(403);
  const review = (await head!<Review>('POST', '/register/restore/review', { rows })).body;
  expect([review.count, review.consequences.join(' ')]).toEqual([
    2,
    expect.stringContaining('1 record will be made again'),
  ]);
  const back = await restore(rows, review.token);
  expect(back.body.sentence).toBe('Undid the withdrawal of 2 copies, and brought 1 record back');
  const now = await catalogueOf(t.running);
  expect(now.records).toEqual(before.records);
  expect(now.copies).toHaveLength(before.copies!.length - 1);
  // Once more, and for a row that never was.
  expect((await restore(rows)).status).toBe(422);
  expect((await restore([999_999])).status).toBe(422);
  // The third copy's barcode was given away meanwhile.
  const gone = rowOf(two!.copyId);
  const { store } = t.running.services;
  const other = (await store.read('copy', one!.copyId))!;
  const name = async (barcode: string) =>
    commit(store, {
      ...{ did: TESTED, person: 1 },
      changes: [update('copy', (await store.read('copy', other.id))!, { ...other.value, barcode })],
    });
  await name(gone.withdrawn.copy.barcode);
  const blocked = await restore([gone.id]);
  expect([blocked.status, blocked.body.detail]).toEqual([409, expect.any(String)]);
  await name(other.value.barcode);
  expect((await restore([gone.id])).status).toBe(200);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('the whole is undone after single copies of it came back: they stay as they are, the others come too', async () => {
  const before = await catalogueOf(t.running);
  const id = await start(trolley);
  const copies = (await list(id)).verdicts.flatMap((v) =>
    v.verdict === 'stop' || v.again ? [] : (v.candidate?.copyId ?? []),
  );
  expect(copies.length).toBeGreaterThan(5);
  const done = await head!<{ entry: number }>('POST', `/withdrawal-lists/${id}/withdraw`, { copies });
  const register = (await head!<{ rows: RegisterRow[] }>('GET', '/register')).body.rows;
  const rows = register.filter((r) => r.entry === done.body.entry && !r.restored).map((r) => r.id);
  expect(rows).toHaveLength(copies.length);
  const [first, ...others] = [rows.slice(0, 3), rows.slice(3, 4), rows.slice(4, 5)];
  for (const some of [first, ...others])
    expect((await head!('POST', '/register/restore', { rows: some })).status).toBe(200);
  // One of them leaves again by another list: the first entry does not bring that one back.
  const { copyId, copy } = register.find((r) => r.id === rows[0])!.withdrawn;
  const again = await start([copy.barcode]);
  const gone = await head!<{ entry: number }>('POST', `/withdrawal-lists/${again}/withdraw`, {
    copies: [copyId],
  });
  const blocked = await head!<Problem>('POST', `/daybook/${done.body.entry}/undo`);
  expect([gone.status, blocked.status]).toEqual([200, 409]);
  await head!('POST', `/daybook/${gone.body.entry}/undo`);
  const undone = await head!<{ entry: number } & Problem>('POST', `/daybook/${done.body.entry}/undo`);
  expect([undone.status, undone.body.detail]).toEqual([200, undefined]);
  expect(await catalogueOf(t.running)).toEqual(before);
  const now = (await head!<{ rows: RegisterRow[] }>('GET', '/register')).body.rows;
  expect(now.filter((r) => rows.includes(r.id)).every((r) => r.restored)).toBe(true);
});

test('a list names who is to confirm it: one who may; the review of another says so, Today tells it', async () => {
  const of = (confirmer: number) => ({ name: 'Named', branch: 'MR', reason: 'worn', confirmer });
  const refused = await cataloguer!<Problem>('POST', '/withdrawal-lists', of(3));
  expect([refused.status, refused.body.fields?.[0]?.field, refused.body.detail]).toEqual([
    ...[422, 'confirmer'],
    'Ida Moorhouse may not confirm withdrawals. Choose another person.',
  ]);
  expect((await cataloguer!('POST', '/withdrawal-lists', of(999))).status).toBe(422);
  const { body: made } = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', of(1));
  await cataloguer!('POST', `/withdrawal-lists/${made.id}/scans`, { codes: trolley });
  const named = await list(made.id);
  expect(named.confirmer).toBe(1);
  const copies = named.verdicts.flatMap((v) =>
    v.verdict === 'caution' && !v.again ? (v.candidate?.copyId ?? []) : [],
  );
  const review = async (who: Ask) =>
    (await who<Review>('POST', `/withdrawal-lists/${made.id}/withdraw/review`, { copies })).body.consequences;
  expect(await review(cataloguer!)).toContain('Nell Arkwright is named to confirm this list.');
  expect((await review(head!)).join()).not.toContain('is named');
  const today = (await cataloguer!<Today>('GET', '/today')).body.withdrawalLists;
  expect(today.find((l) => l.id === made.id)).toMatchObject({ confirmer: { id: 1, name: 'Nell Arkwright' } });
  const path = `/withdrawal-lists/${made.id}`;
  await cataloguer!('PUT', path, { ...of(0), version: named.version });
  expect((await list(made.id)).confirmer).toBeUndefined();
  await cataloguer!('DELETE', path);
});

test.each([
  ['suppress', /1 record will stay without copies, suppressed/],
  ['keep', /1 record will stay without copies, with a note/],
])('a record that loses its last copy stays: %s', async (lastCopy, says) => {
  const before = await catalogueOf(t.running);
  const id = await start(trolley);
  const { copyId, recordId } = (await list(id)).verdicts.find((v) => v.lastAnywhere)!.candidate!;
  const path = `/withdrawal-lists/${id}/withdraw`;
  const review = (await head!<Review>('POST', `${path}/review`, { copies: [copyId], lastCopy })).body;
  expect(review.consequences.join(' ')).toMatch(says);
  const done = await head!<{ entry: number }>('POST', path, {
    copies: [copyId],
    lastCopy,
    token: review.token,
  });
  expect(done.status).toBe(200);
  const store = t.running.services.store;
  const record = await store.read('record', recordId);
  expect(record?.value.fields.some((f) => f.tag === '590')).toBe(lastCopy === 'keep');
  expect((await store.read('suppressed', recordId)) !== null).toBe(lastCopy === 'suppress');
  expect(await store.find('holding', { where: { record: recordId } })).toEqual([]);
  await head!('POST', `/daybook/${done.body.entry}/undo`);
  expect(await catalogueOf(t.running)).toEqual(before);
});

test('the limits of the house are cautions', async () => {
  const { house } = (await head!<SetUp>('GET', '/set-up')).body;
  const store = t.running.services.store;
  const [dear] = await store.rows<{ barcode: string; location: string }>(
    "SELECT c.barcode, h.location FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'MR' AND c.price > 100 AND c.status = 'available' ORDER BY c.id LIMIT 1",
  );
  const id = await start([dear!.barcode]);
  const reasons = async () => (await list(id)).verdicts[0]!.reasons.map((r) => r.code);
  const without = await reasons();
  const withdrawals = { priceAbove: 100, youngerThan: 240, locations: [dear!.location], fields: ['245'] };
  const bad = await head!<Problem>('PUT', '/set-up/house', {
    ...house.value,
    version: house.version,
    withdrawals: { ...withdrawals, fields: ['24'] },
  });
  expect([bad.status, bad.body.fields?.[0]?.field]).toEqual([422, 'withdrawals.fields[0]']);
  const done = await head!<{ entry: number }>('PUT', '/set-up/house', {
    ...{ ...house.value, version: house.version, withdrawals },
  });
  expect(done.status).toBe(200);
  expect(await reasons()).toEqual(expect.arrayContaining(['protected', 'expensive']));
  expect((await reasons()).filter((r) => r === 'protected')).toHaveLength(2);
  await head!('POST', `/daybook/${done.body.entry}/undo`);
  expect(await reasons()).toEqual(without);
});

test('what a review counts is what an independent statement counts', async () => {
  const id = await start(trolley);
  const chosen = (await list(id)).verdicts
    .filter((v) => v.candidate && v.verdict !== 'stop' && !v.again)
    .map((v) => v.candidate!.copyId);
  const { consequences } = (
    await head!<Review>('POST', `/withdrawal-lists/${id}/withdraw/review`, { copies: chosen })
  ).body;
  const [sums] = await t.running.services.store.rows<{ price: number; holdings: number; records: number }>(
    `WITH going AS (SELECT value AS id FROM json_each(:chosen)), held AS (SELECT DISTINCT holding FROM copies WHERE id IN (SELECT id FROM going))
     SELECT (SELECT SUM(price) FROM copies WHERE id IN (SELECT id FROM going)) AS price,
       (SELECT COUNT(*) FROM held WHERE NOT EXISTS (SELECT 1 FROM copies c WHERE c.holding = held.holding AND c.id NOT IN (SELECT id FROM going))) AS holdings,
       (SELECT COUNT(DISTINCT h.record) FROM held JOIN holdings h ON h.id = held.holding WHERE NOT EXISTS (SELECT 1 FROM holdings x
          WHERE x.record = h.record AND (NOT EXISTS (SELECT 1 FROM copies c WHERE c.holding = x.id) OR EXISTS
            (SELECT 1 FROM copies c WHERE c.holding = x.id AND c.id NOT IN (SELECT id FROM going))))) AS records`,
    { chosen: JSON.stringify(chosen) },
  );
  const text = consequences.join('\n');
  expect(text).toContain(`GBP ${(sums!.price / 100).toFixed(2)} together`);
  expect(text).toMatch(new RegExp(`^${sums!.holdings} holdings? will be deleted`, 'm'));
  expect(text).toMatch(new RegExp(`^${sums!.records} records? will leave`, 'm'));
  expect(text).toContain(`By branch: Millrace (${chosen.length}).`);
});

test('the register is searched, narrowed, sorted page by page, and taken along whole', async () => {
  const { store } = t.running.services;
  const first = await store.nextIds('withdrawn', 260);
  const row = (i: number) => ({
    copy: {
      ...{ holding: 1, number: 1, type: 'BK', fund: '', supplier: '', condition: '', note: '' },
      ...{
        barcode: `777${String(i).padStart(5, '0')}`,
        price: i % 7 ? i : null,
        acquired: '',
        lastSeen: '',
        status: 'available',
      },
    },
    ...{ copyId: 900_000 + i, record: 900_000 + i, title: `Tëst ${String((i * 37) % 260).padStart(3, '0')}` },
    ...{
      branch: i % 2 ? 'SH' : 'MR',
      location: 'OPEN',
      callNumber: `900 T${i}`,
      withdrawnOn: `2020-01-${String(1 + (i % 28)).padStart(2, '0')}`,
    },
    ...{ by: 'N', reason: i % 3 ? 'old' : 'torn, "badly"', lastCopy: false, author: 'Tester, A' },
  });
  await commit(store, {
    ...{ did: TESTED, person: 1 },
    changes: Array.from({ length: 260 }, (_, i) => creation('withdrawn', first + i, row(i) as never)),
  });
  type Page = {
    rows: RegisterRow[];
    next: string | null;
    total: number;
    sums: { currency: string; price: number }[];
  };
  const all = async (query: string) => {
    const rows: RegisterRow[] = [];
    for (let after = ''; ;) {
      const { body } = await assistant!<Page>('GET', `/register?${query}&after=${after}`);
      expect(body.rows.length).toBeLessThanOrEqual(100);
      rows.push(...body.rows);
      if (body.next === null) return { rows, total: body.total, sums: body.sums };
      after = body.next;
    }
  };
  const titles = await all('q=TESTER%20777&sort=title&down=no');
  expect([titles.rows.length, titles.total]).toEqual([260, 260]);
  const sorted = titles.rows.map((r) => r.withdrawn.title);
  expect(sorted).toEqual([...sorted].sort());
  expect(new Set(titles.rows.map((r) => r.id)).size).toBe(260);
  const price = Array.from({ length: 260 }, (_, i) => (i % 7 ? i : 0)).reduce((a, b) => a + b);
  expect(titles.sums).toEqual([{ currency: '', price }]);
  for (const sort of ['on', 'number', 'price'])
    for (const down of ['yes', 'no'])
      expect((await all(`q=tester&sort=${sort}&down=${down}`)).rows).toHaveLength(260);
  const some = await all('q=test&branch=SH&reason=old&from=2020-01-05&to=2020-01-09');
  const wanted = Array.from({ length: 260 }, (_, i) => row(i)).filter(
    (w) =>
      w.branch === 'SH' &&
      w.reason === 'old' &&
      w.withdrawnOn >= '2020-01-05' &&
      w.withdrawnOn <= '2020-01-09',
  );
  expect(some.rows.map((r) => r.withdrawn.copy.barcode).sort()).toEqual(
    wanted.map((w) => w.copy.barcode).sort(),
  );
  expect((await assistant!('GET', '/register?after=nonsense')).status).toBe(422);
  const file = await assistant!<string>('GET', '/register/export?q=tester&sort=number&down=no');
  const table = parse<string[]>(String(file.body).replace(/^\ufeff/, ''), { skipEmptyLines: true }).data;
  expect(table).toHaveLength(261);
  expect(table[0]!.slice(0, 4)).toEqual(['Withdrawn', 'Barcode', 'Title', 'Author']);
  expect(
    table
      .slice(1)
      .map((cells) => cells[1])
      .sort(),
  ).toEqual(titles.rows.map((r) => r.withdrawn.copy.barcode).sort());
  const reasons = (await assistant!<{ reason: string; n: number }[]>('GET', '/register/reasons')).body;
  expect(reasons).toEqual(expect.arrayContaining([{ reason: 'torn, "badly"', n: 87 }]));
});

test('with the loans desk silent, nobody takes silence for “not on loan”', async () => {
  const other = await startTesting({ loans: false });
  const ask = await other.as(1);
  const { body } = await ask<{ id: number }>('POST', '/withdrawal-lists', { name: 'x', branch: 'MR' });
  await ask('POST', `/withdrawal-lists/${body.id}/scans`, { codes: trolley });
  const { verdicts, loansDesk } = (await ask<WithdrawalList>('GET', `/withdrawal-lists/${body.id}`)).body;
  expect(loansDesk).toBe(false);
  expect(verdicts.filter((v) => v.verdict === 'clear')).toEqual([]);
  expect(verdicts.flatMap((v) => v.reasons.map((r) => r.code))).toContain('loan-unknown');
  await other.stop();
});

test('copies put on a list from a pile are to be pulled: a slip list in shelf order, ticked by scanning, no code scanned twice for it', async () => {
  const rows = await t.running.services.store.rows<{ id: number; barcode: string }>(
    `SELECT c.id, c.barcode FROM copies c JOIN holdings h ON h.id = c.holding WHERE h.branch = 'MR' AND c.status = 'available' ORDER BY c.barcode LIMIT 6`,
  );
  const { body: pile } = await cataloguer!<{ id: number }>('POST', '/piles', { name: 'To pull', of: 'copy' });
  await cataloguer!('POST', `/piles/${pile.id}/scans`, { codes: rows.slice(0, 5).map((r) => r.barcode) });
  const id = await start([rows[5]!.barcode]);
  const path = `/withdrawal-lists/${id}`;
  const fill = (body: object) => cataloguer!<{ added: number; detail: string }>('POST', `${path}/fill`, body);
  expect((await fill({ pile: pile.id })).body.added).toBe(5);
  // What is on the list already is not put there again.
  expect((await fill({ pile: pile.id })).body.added).toBe(0);
  expect([(await fill({})).status, (await fill({ pile: pile.id, stocktake: 1 })).status]).toEqual([422, 422]);
  expect((await fill({ stocktake: 999 })).status).toBe(404);
  const pulled = async () => (await list(id)).verdicts.map((v) => [v.pulled, v.again]);
  expect(await pulled()).toEqual([[null, false], ...Array.from({ length: 5 }, () => [false, false])]);
  const slips = async () =>
    (await assistant!<{ code: string; callNumber: string; pulled: boolean }[]>('GET', `${path}/pull`)).body;
  const order = await t.running.services.store.rows<{ barcode: string }>(
    `SELECT c.barcode FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.id IN (${rows
      .slice(0, 5)
      .map((r) => r.id)
      .join()}) ORDER BY h.location, h.shelf_key, c.barcode`,
  );
  expect((await slips()).map((s) => s.code)).toEqual(order.map((o) => o.barcode));

  const scan = async (code: string) =>
    (await assistant!<{ verdicts: WithdrawalRow[] }>('POST', `${path}/scans`, { codes: [code] })).body
      .verdicts[0]!;
  expect(await scan(rows[2]!.barcode)).toMatchObject({ pulled: true, again: false });
  expect((await slips()).filter((s) => s.pulled).map((s) => s.code)).toEqual([rows[2]!.barcode]);
  expect((await list(id)).verdicts).toHaveLength(6);
  // A second scan is one scanned twice; what is taken off goes with its scans.
  expect(await scan(rows[2]!.barcode)).toMatchObject({ again: true });
  const { body: undone } = await assistant!<{ code: string }>('POST', `${path}/scans/undo`);
  expect(undone.code).toBe(rows[2]!.barcode);
  const row = (await list(id)).verdicts.find((v) => v.code === rows[2]!.barcode)!;
  await cataloguer!('DELETE', `${path}/scans/${row.scan}`);
  expect((await list(id)).verdicts.map((v) => v.code)).not.toContain(rows[2]!.barcode);
});

test('a job leaves copies against which more is said by now than was reviewed, and says so', async () => {
  const { services } = t.running;
  const id = await start(trolley);
  const { verdicts } = await list(id);
  const clear = verdicts.filter((v) => v.verdict === 'clear').slice(0, 3);
  const cautioned = verdicts.find((v) => v.verdict === 'caution' && !v.again && v.candidate)!;
  const stopped = verdicts.find((v) => v.reasons[0]?.code === 'on-loan')!;
  const titleOf = (v: WithdrawalRow, said = '') => ({
    copies: [{ copy: v.candidate!.copyId, code: v.code, said }],
  });
  const job = await services.jobs.begin('withdraw-copies', 'x', 1, {
    ...{ list: id, overrule: { copies: [], reason: '' }, lastCopies: [{ record: 0, how: 'keep' }] },
    titles: [...clear.map((v) => titleOf(v)), titleOf(cautioned), titleOf(stopped)],
  });
  const done = await t.jobDone(head!, job.id);
  expect(done).toMatchObject({
    state: 'done',
    message: `Withdrew ${clear.length} copies from “Trolley ${lists}”. 2 had changed meanwhile and stay on the list.`,
  });
  const codes = (await list(id)).verdicts.filter((v) => v.candidate).map((v) => v.code);
  expect(codes).toEqual(expect.arrayContaining([cautioned.code, stopped.code]));
  for (const v of clear) expect(codes).not.toContain(v.code);
  expect((await list(id)).state).toBe('open');
  await head!('POST', `/daybook/${done.entry}/undo`);
});
