// Headings at the API: a merge that three thousand records carry, with its review and its undoing; the lists of the desk.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';
import { MEMORY, NODE_FLAGS } from '../scripts/serve.mjs';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { timed } from './timed.mjs';

const RECORDS = 3000;
const ROUNDS = 20;

const p95 = (took) => [...took].sort((a, b) => a - b)[Math.ceil(took.length * 0.95) - 1];
async function took(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

const name = (tag, a, d) =>
  `<datafield tag="${tag}" ind1="1" ind2=" "><subfield code="a">${a}</subfield>${d ? `<subfield code="d">${d}</subfield>` : ''}</datafield>`;
const record = (i) =>
  `<record><leader>00000nam a2200000 i 4500</leader><controlfield tag="001">hb${i}</controlfield>${name('100', 'Benchley, A.')}` +
  `<datafield tag="245" ind1="1" ind2="0"><subfield code="a">Benches of the marsh, part ${i} /</subfield></datafield>` +
  `${i % 5 ? '' : name('700', 'Benchley, Amos,', '1880-1950')}</record>`;

/** Adds the records by a delivery, each as new. */
async function added(ask, until) {
  const xml = `<?xml version="1.0"?><collection xmlns="http://www.loc.gov/MARC21/slim">${Array.from({ length: RECORDS }, (_, i) => record(i)).join('')}</collection>`;
  const taken = await ask('POST', '/deliveries?name=benches.xml', Buffer.from(xml));
  await until(taken.job);
  const job = await ask('POST', `/deliveries/${taken.delivery}/accept`, {});
  await until(job.id);
  const { rows } = await ask('GET', '/headings?q=benchley');
  const of = (text) => rows.find((r) => r.text.startsWith(text));
  return { lost: of('Benchley, A.'), kept: of('Benchley, Amos') };
}

/** How much longer as many more may take for that to be called near-linear: half as much again as n log n. */
const NEAR = 1.5;

/** How often the smaller number is compared; the best one counts, as of every row with a budget in seconds. */
const TIMES = 5;

/** Headings compared for the first time in the threads of the server, at two sizes, and one that is changed later. */
export async function compared() {
  const many = Number(process.env.OSIER_BENCH_NAMES ?? 1_000_000);
  const few = many / 5;
  const all = [];
  for (let i = 0; i < TIMES; i++) all.push(await comparedIn(few));
  console.error(`${few} compared: ${all.map((one) => `${one.comparing.toFixed(1)} s`).join(', ')}`);
  const [first] = all.sort((a, b) => a.comparing - b.comparing);
  const second = await comparedIn(many);
  const grown = (many * Math.log(many)) / (few * Math.log(few));
  const row = (count, against, theirs, budget, { comparing, peak, change }) => [
    { work: `${count.toLocaleString('en')} headings compared`, against, ours: comparing, theirs, budget },
    { work: 'the same: peak memory', against: 'the budget', budget: 1, ours: peak, theirs: 1000, unit: 'MB' },
    {
      work: 'one of them changed, p95',
      against: 'the budget',
      budget: 1,
      ours: change,
      theirs: 50,
      unit: 'ms',
    },
  ];
  return [
    ...row(few, 'the budget', 20 * (few / 200_000), 1, first),
    ...row(many, 'a fifth of them, as n log n grows', first.comparing * grown, NEAR, second),
  ];
}

/** So many headings compared: seconds, peak memory (MB), and how long one that is changed later takes (ms). */
async function comparedIn(count) {
  const folder = mkdtempSync(join(tmpdir(), 'osier-names-'));
  const said = join(folder, 'said.json');
  const laid = [await bundled('compare-names'), join(folder, 'store'), String(count)];
  await timed(process.execPath, laid);
  // As a server is started.
  const args = [...NODE_FLAGS, ...laid, join(root, 'packages/server/dist'), said];
  const { peak } = await timed(process.execPath, args, MEMORY);
  const { comparing, change } = JSON.parse(readFileSync(said, 'utf8'));
  rmSync(folder, { recursive: true });
  return { comparing: comparing / 1000, peak, change };
}

export async function headingsBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-headings-'));
  const records = process.env.OSIER_BENCH_STORE ?? '5000';
  await timed(process.execPath, [await bundled('big-store'), folder, records]);
  const server = await start(folder);
  const { ask, until } = await client(server);
  const { lost, kept } = await added(ask, until);
  if (lost.records !== RECORDS) throw new Error(`${lost.records} records carry the heading.`);
  // Names that came with the records are compared beside the rest; here the merge is measured by itself.
  while ((await ask('GET', '/headings/look-alikes')).comparing > 0)
    await new Promise((r) => setTimeout(r, 500));
  const body = { kept: kept.id, lost: [lost.id] };
  let review;
  const reviewing = await took(async () => (review = await ask('POST', '/headings/merge/review', body)));
  let done;
  const merging = await took(async () => {
    const { job } = await ask('POST', '/headings/merge', { ...body, token: review.token });
    done = await until(job);
  });
  if (!done.message?.includes('3,000 records')) throw new Error(done.message);
  const undoing = await took(async () => {
    const { job } = await ask('POST', `/daybook/${done.entry}/undo`, {});
    await until(job);
  });
  const lists = {};
  for (const path of [
    '/headings/look-alikes',
    '/headings/look-alikes?verdict=perhaps&kind=personal',
    '/headings',
    '/headings?only=see-froms',
    '/headings?only=unestablished',
    '/headings?only=without-records',
  ]) {
    const each = [];
    for (let i = 0; i < ROUNDS; i++) each.push(await took(() => ask('GET', path)));
    lists[path] = p95(each);
  }
  server.process.kill('SIGKILL');
  await server.ended;
  rmSync(folder, { recursive: true });
  const row = (work, ours, theirs) => ({ work, against: 'the budget', ours, theirs, budget: 1, unit: 'ms' });
  return [
    ...(await compared()),
    row('a merge of 3,000 records reviewed', reviewing, 5000),
    row('a merge of 3,000 records done', merging, 5000),
    row('the same undone', undoing, 10_000),
    ...Object.entries(lists).map(([path, ms]) => row(`listed: ${path}`, ms, 150)),
  ];
}
