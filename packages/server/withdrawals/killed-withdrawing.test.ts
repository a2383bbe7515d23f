import type { WithdrawalList } from '@osier/contract';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from '../store/open-store';
import { benchCopies } from '../testing/bench-copies';
import { client, ended, kill, killAll, start } from '../testing/killing';
import { layLibrary } from '../testing/library';

afterAll(killAll);

const COPIES = 3000;
const HEAD = 1;

/** What the store holds of copies, holdings, records and the register. */
async function heldIn(folder: string): Promise<Record<string, number>> {
  const store = await openStore(folder);
  const [row] = await store.rows<Record<string, number>>(
    `SELECT (SELECT COUNT(*) FROM copies) AS copies, (SELECT COUNT(*) FROM holdings) AS holdings, (SELECT COUNT(*) FROM records) AS records,
       (SELECT COUNT(*) FROM withdrawn WHERE gone = 0) AS register, (SELECT COUNT(DISTINCT barcode) FROM withdrawn WHERE gone = 0) AS barcodes`,
  );
  await store.close();
  return row!;
}

test('a withdrawal that is killed goes on to the end, each copy once in the register; undone, all is as it was', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-kill-'));
  layLibrary(folder);
  const barcodes = await benchCopies(folder, COPIES);
  const before = await heldIn(folder);
  let server = await start(folder);
  let { ask, until } = await client(server, HEAD);
  const json = (body: object) => JSON.stringify(body);
  const { id } = await ask<{ id: number }>(
    'POST',
    '/withdrawal-lists',
    json({ name: 'Benches', branch: 'MR', reason: 'worn' }),
  );
  const path = `/withdrawal-lists/${id}`;
  await ask('POST', `${path}/scans`, json({ codes: barcodes }));
  const { verdicts } = await ask<WithdrawalList>('GET', path);
  // One record is kept all the same.
  const kept = verdicts[7]!.candidate!.recordId;
  const body = {
    copies: verdicts.map((v) => v.candidate!.copyId),
    lastCopy: 'delete',
    lastCopies: [{ record: kept, how: 'suppress' }],
  };
  const { token } = await ask<{ token: string }>('POST', `${path}/withdraw/review`, json(body));
  const { job } = await ask<{ job: number }>('POST', `${path}/withdraw`, json({ ...body, token }));
  let kills = 0;
  for (const at of [1, 800, 1600]) {
    const seen = await until(job, (j) => j.done >= at || ended(j));
    if (ended(seen)) break;
    await kill(server);
    kills++;
    server = await start(folder);
    ({ ask, until } = await client(server, HEAD));
  }
  expect(kills).toBeGreaterThan(0);
  const done = await until(job, ended);
  expect(done).toMatchObject({ state: 'done', message: `Withdrew ${COPIES} copies from “Benches”.` });
  expect((await ask<WithdrawalList>('GET', path)).state).toBe('done');
  await kill(server);
  expect(await heldIn(folder)).toEqual({
    copies: before.copies! - COPIES,
    holdings: before.holdings! - COPIES,
    records: before.records! - COPIES + 1,
    register: before.register! + COPIES,
    barcodes: before.barcodes! + COPIES,
  });
  server = await start(folder);
  ({ ask, until } = await client(server, HEAD));
  const undone = await ask<{ job?: number }>('POST', `/daybook/${done.entry}/undo`, '{}');
  if (undone.job) expect((await until(undone.job, ended)).state).toBe('done');
  await kill(server);
  expect(await heldIn(folder)).toEqual(before);
  rmSync(folder, { recursive: true });
}, 600_000);
