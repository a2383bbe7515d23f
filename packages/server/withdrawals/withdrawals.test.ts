import type { Problem, RegisterRow, Review, WithdrawalList } from '@osier/contract';
import { readFileSync } from 'node:fs';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());
const trolley = readFileSync(demoFile('trolley-of-discards.txt'), 'utf8').trim().split('\n');

let lists = 0;
const start = async (codes: string[]) => {
  const { body } = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    name: `Trolley ${++lists}`,
    branch: 'MR',
    reason: 'worn',
  });
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

test('a scan can be taken off; an assistant may not list', async () => {
  const id = await start(trolley.slice(0, 2));
  const [row] = (await list(id)).verdicts;
  await cataloguer!('DELETE', `/withdrawal-lists/${id}/scans/${row!.scan}`);
  expect((await list(id)).verdicts).toHaveLength(1);
  expect((await assistant!('POST', `/withdrawal-lists/${id}/scans`, { codes: ['1'] })).status).toBe(403);
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
