// Withdrawal lists: a scan weighed while ten people scan into a list of 5,000, the list opened, at the API of a library of 60,000 copies.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { p95, timed, took } from './timed.mjs';

const RECORDS = 30_000;
const LISTED = 5000;
const [SCANNERS, SCANS] = [10, 20];

export async function withdrawalsBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-withdrawals-'));
  await timed(process.execPath, [await bundled('big-store'), folder, String(RECORDS)]);
  const server = await start(folder);
  const { ask } = await client(server);
  for (const list of ['/headings/look-alikes', '/records/alike'])
    while ((await ask('GET', list)).comparing > 0) await new Promise((r) => setTimeout(r, 500));
  const stretch = { name: 'Bench', branch: 'MR', locations: ['OPEN'], scheme: 'dewey', from: '', to: '' };
  const { id: stocktake } = await ask('POST', '/stocktakes', stretch);
  const codes = [];
  for (let after = ''; after !== null && codes.length < LISTED + 500;) {
    const page = await ask('GET', `/stocktakes/${stocktake}/shelf?after=${after}`);
    codes.push(...page.rows.map((r) => r.barcode));
    after = page.next;
  }
  const { id } = await ask('POST', '/withdrawal-lists', { name: 'Bench', branch: 'MR', reason: 'worn' });
  const path = `/withdrawal-lists/${id}`;
  await ask('POST', `${path}/scans`, { codes: codes.slice(0, LISTED) });
  await ask('GET', path);
  const opened = [];
  for (let i = 0; i < 5; i++) opened.push(await took(() => ask('GET', path)));
  const scans = [];
  await Promise.all(
    Array.from({ length: SCANNERS }, async (_, s) => {
      // They do not all begin in one moment.
      await new Promise((r) => setTimeout(r, s * 50));
      for (let i = 0; i < SCANS; i++) {
        const code = codes[LISTED + s * SCANS + i];
        scans.push(await took(() => ask('POST', `${path}/scans`, { codes: [code] })));
        // A person takes half a second for a book.
        await new Promise((r) => setTimeout(r, 500));
      }
    }),
  );
  server.process.kill('SIGKILL');
  await server.ended;
  rmSync(folder, { recursive: true });
  const against = 'the budget';
  return [
    {
      work: `a scan weighed, ten scanners at once, list of ${LISTED.toLocaleString('en-GB')} (p95)`,
      ...{ against, ours: p95(scans), theirs: 50, budget: 1, unit: 'ms' },
    },
    {
      work: `a list of ${LISTED.toLocaleString('en-GB')} opened, the loans desk heard`,
      ...{ against, ours: p95(opened), theirs: 2000, budget: 1, unit: 'ms' },
    },
  ];
}
