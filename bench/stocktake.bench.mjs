// Stocktakes: reckoned in core; opened and scanned by ten at once at the API, over a stretch of 60,000 copies.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { p95, timed, took } from './timed.mjs';

/** Copies of a branch: a record of the bench has two, and every second record is of it. */
const RECORDS = 60_000;
const [SCANNERS, SCANS] = [10, 20];

async function reckoned(size, ...more) {
  const said = execFileSync(process.execPath, [await bundled('reckon'), String(size), ...more], {
    encoding: 'utf8',
  });
  const [copies, scans, whole, one] = said.trim().split(' ').map(Number);
  return { copies, scans, whole, one };
}

export async function stocktakeBench() {
  const [small, large] = [await reckoned(12_000), await reckoned(60_000)];
  const [smallBegun, largeBegun] = [await reckoned(12_000, 'tenth'), await reckoned(60_000, 'tenth')];
  const folder = mkdtempSync(join(tmpdir(), 'osier-stocktake-'));
  await timed(process.execPath, [await bundled('big-store'), folder, String(RECORDS)]);
  const server = await start(folder);
  const { ask } = await client(server);
  // What came with the store is compared first; here stocktakes are measured by themselves.
  for (const list of ['/headings/look-alikes', '/records/alike'])
    while ((await ask('GET', list)).comparing > 0) await new Promise((r) => setTimeout(r, 500));
  const stretch = { name: 'Bench', branch: 'MR', locations: ['OPEN'], scheme: 'dewey', from: '', to: '' };
  let made;
  const starting = await took(async () => (made = await ask('POST', '/stocktakes', stretch)));
  const path = `/stocktakes/${made.id}`;
  const compared = async () => {
    while ((await ask('GET', path)).comparing) await new Promise((r) => setTimeout(r, 100));
  };
  const reckoning = await took(compared);
  const { rows } = await ask('GET', `${path}/shelf`);
  const codes = rows.map((r) => r.barcode);
  await ask('POST', `${path}/load`, { name: 'walk', codes: codes.slice(0, 1500) });
  await compared();
  const opened = [];
  for (let i = 0; i < 20; i++)
    opened.push(
      await took(async () => {
        for (const part of ['', '/findings?kind=missing', '/strip']) await ask('GET', path + part);
      }),
    );
  const scans = [];
  await Promise.all(
    Array.from({ length: SCANNERS }, async (_, s) => {
      // They do not all begin in one moment.
      await new Promise((r) => setTimeout(r, s * 50));
      for (let i = 0; i < SCANS; i++) {
        const from = { device: `d${s}`, run: 'r', number: i };
        const code = codes[(1500 + s * 40 + i) % codes.length];
        scans.push(await took(() => ask('POST', `${path}/scans`, { codes: [code], from })));
        // A person takes half a second for a book.
        await new Promise((r) => setTimeout(r, 500));
      }
    }),
  );
  const expected = (await ask('GET', path)).expected;
  server.process.kill('SIGKILL');
  await server.ended;
  rmSync(folder, { recursive: true });
  const against = 'the budget';
  const inWords = (n) => n.toLocaleString('en-GB');
  return [
    {
      ...{
        work: `${inWords(large.scans)} scans reckoned, ${inWords(large.copies)} copies, in core`,
        against,
      },
      ...{ ours: large.whole, theirs: 500, budget: 1, unit: 'ms' },
    },
    {
      ...{
        work: `the same, against ${inWords(small.scans)} scans of ${inWords(small.copies)} copies`,
        against: 'itself',
      },
      ...{ ours: large.whole, theirs: small.whole, budget: 5, unit: 'ms' },
    },
    {
      ...{ work: 'the same, a tenth scanned', against: 'itself' },
      ...{ ours: largeBegun.whole, theirs: smallBegun.whole, budget: 8, unit: 'ms' },
    },
    { work: 'one more scan, in core', against, ours: large.one, theirs: 5, budget: 1, unit: 'ms' },
    {
      work: `a stocktake of ${inWords(expected)} copies started`,
      against,
      ours: starting,
      theirs: 5000,
      budget: 1,
      unit: 'ms',
    },
    {
      work: 'reckoned beside, until nothing waits',
      against,
      ours: reckoning,
      theirs: 5000,
      budget: 1,
      unit: 'ms',
    },
    {
      work: 'it is opened: counts, missing, strip (p95)',
      against,
      ours: p95(opened),
      theirs: 200,
      budget: 1,
      unit: 'ms',
    },
    {
      work: 'a scan answered, ten scanners at once (p95)',
      against,
      ours: p95(scans),
      theirs: 50,
      budget: 1,
      unit: 'ms',
    },
  ];
}
