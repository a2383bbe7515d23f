// Queries, orders, facets and lists that are browsed, in a large library.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { timed } from './timed.mjs';

const RECORDS = Number(process.env.OSIER_BENCH_STORE ?? 300_000);
const TIMES = 200;
const BUDGET = 80;
const QUERIES = [
  'the',
  'a',
  'willow',
  'press',
  'the willow',
  'reed basket',
  'title = willow',
  'title all "the willow" and year > 2000',
  '"the willow" or subject = eels',
  'publisher = press',
  'year = 1998',
  'year within "1990 1999" and language = eng',
  'branch = MR',
  'status = lost',
  'copies = 0',
  'callnumber within "710 .. 712"',
  'callnumber = 7*',
  'changed >= 2020',
  'changedby = "Nell Arkwright"',
  'title = willow not branch = MR sortBy year/sort.descending',
];
const ORDERS = ['title', 'name', 'year', 'callnumber', 'added', 'changed'];
const OF_HEADINGS = ['reed', 'a', 'kind = corporate', 'records > 100', 'records = 0', 'established = yes'];
const LISTS = {
  title: 'm',
  name: 'm',
  subject: 'm',
  series: '',
  publisher: 'p',
  callnumber: '750',
  barcode: '9',
};

/** Milliseconds in which 95 of 100 answers come, of those that were asked for. */
async function p95(ask) {
  const took = [];
  for (let i = 0; i < TIMES; i++) {
    const began = performance.now();
    await ask();
    took.push(performance.now() - began);
  }
  return took.sort((a, b) => a - b)[Math.ceil(took.length * 0.95) - 1];
}

export async function findBench(laid = process.env.OSIER_BENCH_FOLDER) {
  const folder = laid ?? mkdtempSync(join(tmpdir(), 'osier-find-'));
  if (!laid) await timed(process.execPath, [await bundled('big-store'), folder, String(RECORDS)]);
  const server = await start(folder);
  const { ask } = await client(server);
  const rows = [];
  const row = async (work, path) =>
    rows.push({
      ...{ work: `${work}, ${RECORDS.toLocaleString('en-GB')} records`, against: 'the budget' },
      ...{ ours: await p95(() => ask('GET', path)), theirs: BUDGET, budget: 1, unit: 'ms' },
    });
  const q = (text) => `q=${encodeURIComponent(text)}`;
  for (const text of QUERIES) {
    await row(`first rows of ${text}`, `/records?${q(text)}`);
    await row(`facets of ${text}`, `/records/facets?${q(text)}`);
  }
  for (const order of ORDERS) {
    await row(`all by ${order}`, `/records?sort=${order}`);
    await row(`“the” by ${order}`, `/records?q=the&sort=${order}`);
  }
  for (const [list, from] of Object.entries(LISTS))
    await row(`browsing ${list}`, `/browse/${list}?from=${from}`);
  for (const text of OF_HEADINGS) await row(`headings by ${text}`, `/headings?${q(text)}`);
  for (const text of ['reed', 'title = willow and year > 2000'])
    await row(`first rows of ${text} at one branch`, `/records?branch=MR&${q(text)}`);
  await row('a field address by the index', `/records?${q('245$a{~\\of\\splace\\s4321}')}`);
  await row('copies by a query', `/copies?${q('title = willow and status = available')}`);
  await row('what was meant by “wilow”', `/records?${q('wilow')}`);
  server.process.kill('SIGKILL');
  await server.ended;
  if (!laid) rmSync(folder, { recursive: true });
  return rows;
}
