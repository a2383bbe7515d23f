import type { JobState, StocktakeDetail, StocktakeReport } from '@osier/contract';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from '../store/open-store';
import { benchCopies } from '../testing/bench-copies';
import { client, ended, kill, killAll, start } from '../testing/killing';
import { layLibrary } from '../testing/library';

afterAll(killAll);

const COPIES = 4000;
const HEAD = 1;

async function seenOn(folder: string): Promise<object[]> {
  const store = await openStore(folder);
  const rows = await store.rows<object>('SELECT last_seen, COUNT(*) AS n FROM copies GROUP BY 1 ORDER BY 1');
  await store.close();
  return rows;
}

/** A stocktake of the benches with some copies scanned. */
async function begun(ask: Awaited<ReturnType<typeof client>>['ask'], scanned: readonly string[]) {
  const stretch = {
    ...{ name: 'Benches', branch: 'MR', locations: ['BENCH'] },
    ...{ scheme: 'dewey', from: '680', to: '688' },
  };
  const { id } = await ask<{ id: number }>('POST', '/stocktakes', JSON.stringify(stretch));
  const path = `/stocktakes/${id}`;
  await ask('POST', `${path}/load`, JSON.stringify({ name: 'walk', codes: scanned }));
  return path;
}

async function byStatus(folder: string): Promise<object[]> {
  const store = await openStore(folder);
  const rows = await store.rows<object>('SELECT status, COUNT(*) AS n FROM copies GROUP BY 1 ORDER BY 1');
  const settled = await store.rows<object>('SELECT COUNT(*) AS n FROM settled_findings');
  await store.close();
  return [...rows, ...settled];
}

test('settling that is killed goes on to the end, each copy once; undone, all is as it was', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-kill-'));
  layLibrary(folder);
  const barcodes = await benchCopies(folder, COPIES);
  const before = await byStatus(folder);
  let server = await start(folder);
  let { ask, until } = await client(server, HEAD);
  const path = await begun(ask, barcodes.slice(0, 1000));
  const items = barcodes.slice(1000).map((code) => ({ finding: 'missing', code, act: 'mark-missing' }));
  const { job } = await ask<{ job: number }>('POST', `${path}/settle`, JSON.stringify({ items }));
  let kills = 0;
  for (const at of [1, 1000, 2000]) {
    const seen = await until(job, (j) => j.done >= at || ended(j));
    if (ended(seen)) break;
    await kill(server);
    kills++;
    server = await start(folder);
    ({ ask, until } = await client(server, HEAD));
  }
  expect(kills).toBeGreaterThan(0);
  const done = await until(job, ended);
  expect(done).toMatchObject({ state: 'done', message: 'Settled 3000 findings.' });
  const missing = async () => {
    await kill(server);
    const rows = await byStatus(folder);
    server = await start(folder);
    ({ ask, until } = await client(server, HEAD));
    return rows;
  };
  const countOf = (rows: readonly object[], status: string) =>
    (rows as { status?: string; n: number }[]).find((r) => r.status === status)?.n ?? 0;
  const after = await missing();
  expect(countOf(after, 'missing') - countOf(before, 'missing')).toBe(3000);
  expect(after.at(-1)).toEqual({ n: 3000 });
  const undone = await ask<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, '{}');
  if (undone.job) expect((await until(undone.job, ended)).state).toBe('done');
  await kill(server);
  expect(await byStatus(folder)).toEqual(before);
  rmSync(folder, { recursive: true });
}, 600_000);

test('a closing that is killed goes on to the end; nothing is scanned meanwhile; undone, all is as it was', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-kill-'));
  layLibrary(folder);
  const barcodes = await benchCopies(folder, COPIES);
  const before = await seenOn(folder);
  let server = await start(folder);
  let { ask, until } = await client(server, HEAD);
  const path = await begun(ask, barcodes.slice(0, 3900));
  const job = await ask<JobState>('POST', `${path}/close`, '{}');
  let kills = 0;
  for (const at of [1, 1200, 2600]) {
    const seen = await until(job.id, (j) => j.done >= at || ended(j));
    if (ended(seen)) break;
    await kill(server);
    kills++;
    server = await start(folder);
    ({ ask, until } = await client(server, HEAD));
    const refused = await ask<{ detail?: string }>('POST', `${path}/scans`, JSON.stringify({ codes: ['1'] }));
    expect(refused.detail).toMatch(/closed/);
  }
  expect(kills).toBeGreaterThan(0);
  const done = await until(job.id, ended);
  expect(done).toMatchObject({ state: 'done', message: 'Closed Benches.' });
  const detail = await ask<StocktakeDetail>('GET', path);
  expect(detail).toMatchObject({ stocktake: { state: 'closed' }, outcomes: { stood: 3900 } });
  const report = await ask<StocktakeReport>('GET', `${path}/report`);
  expect(report.outcomes).toEqual(detail.outcomes);
  expect(report.people).toEqual([{ name: 'walk', scans: 3900 }]);
  const undone = await ask<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, '{}');
  if (undone.job) expect((await until(undone.job, ended)).state).toBe('done');
  expect((await ask<StocktakeDetail>('GET', path)).stocktake.state).toBe('open');
  await kill(server);
  expect(await seenOn(folder)).toEqual(before);
  rmSync(folder, { recursive: true });
}, 600_000);
