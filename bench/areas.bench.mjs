// Every area of a large library, opened with an empty cache; then searches, a record, a scan, and saving.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { timed } from './timed.mjs';

const RECORDS = Number(process.env.OSIER_BENCH_STORE ?? 300_000);
const TIMES = 20;
/** What opening each area asks for. */
const AREAS = {
  Today: ['/today'],
  Deliveries: ['/deliveries'],
  Catalogue: ['/records', '/records/facets'],
  Headings: ['/headings/look-alikes'],
  'Headings, all': ['/headings'],
  Copies: ['/piles'],
  Withdrawals: ['/withdrawal-lists'],
  Stocktake: ['/stocktakes'],
  Daybook: ['/daybook'],
  'Set-up': ['/set-up'],
};

export async function areasBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-areas-'));
  const { seconds: filling } = await timed(process.execPath, [
    await bundled('big-store'),
    folder,
    String(RECORDS),
  ]);
  const server = await start(folder);
  const { ask } = await client(server);
  const rows = [];
  const p95 = async (work, paths, budget, times = TIMES) => {
    const took = [];
    for (let i = 0; i < times; i++) {
      const began = performance.now();
      for (const path of paths) await (typeof path === 'function' ? path(i) : ask('GET', path));
      took.push(performance.now() - began);
    }
    const ours = took.sort((a, b) => a - b)[Math.ceil(took.length * 0.95) - 1];
    rows.push({ work, against: 'the budget', ours, theirs: budget, budget: 1, unit: 'ms' });
  };
  const comparing = await untilCompared(ask, '/headings/look-alikes');
  const pairing = await untilCompared(ask, '/records/alike');
  const stocktake = await ask('POST', '/stocktakes', {
    name: 'Bench',
    branch: 'MR',
    locations: [],
    scheme: 'dewey',
    from: '',
    to: '',
  });
  for (const [area, paths] of Object.entries(AREAS))
    await p95(`${area} opened, ${RECORDS.toLocaleString('en-GB')} records`, paths, 150);
  for (const q of ['willow', 'the', 'a', 'willow press', 'coracle 7'])
    await p95(
      `a search for “${q}”`,
      [`/records?q=${encodeURIComponent(q)}`, `/records/facets?q=${encodeURIComponent(q)}`],
      80,
    );
  await p95('a record opened', [(i) => ask('GET', `/records/${2000 + i * 37}`)], 40, 100);
  await p95(
    'a heading completed while it is typed',
    [(i) => ask('GET', `/complete?from=heading&tag=100&q=${'ABCDEFGHIKLMNOPRSTUW'[i % 20]}a`)],
    80,
    100,
  );
  await p95(
    'a publisher completed while it is typed',
    [(i) => ask('GET', `/complete?from=publisher&tag=264&q=${['wi', 'pr', 're', 'os'][i % 4]}`)],
    80,
    100,
  );
  await p95(
    'a record saved',
    [
      async (i) => {
        const { id, version, marc } = await ask('GET', `/records/${3000 + i * 41}`);
        const noted = { ...marc, fields: [...marc.fields, note(i)] };
        await ask('PUT', `/records/${id}`, { version, marc: noted, withErrors: true });
      },
    ],
    150,
    100,
  );
  await p95('records that look alike', ['/records/alike'], 150);
  const codes = Array.from({ length: 200 }, (_, i) => `9${String(20_000 + 4 * i).padStart(13, '0')}`);
  await p95(
    'a scan of a stocktake answered',
    [
      (i) =>
        ask('POST', `/stocktakes/${stocktake.id}/scans`, {
          codes: [codes[i]],
          from: { device: 'bench', run: '1', number: i },
        }),
    ],
    50,
    200,
  );
  server.process.kill('SIGKILL');
  await server.ended;
  rmSync(folder, { recursive: true });
  console.log(
    `laid down in ${filling.toFixed(0)} s, names compared in ${comparing.toFixed(0)} s, records in ${pairing.toFixed(0)} s more`,
  );
  return rows;
}

const note = (i) => ({ tag: '599', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: `Note ${i}.` }] });

/** Seconds until all of a list of look-alikes is compared. */
async function untilCompared(ask, path) {
  const began = performance.now();
  while ((await ask('GET', path)).comparing > 0) await new Promise((r) => setTimeout(r, 200));
  return (performance.now() - began) / 1000;
}
