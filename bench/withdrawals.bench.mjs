// Withdrawal lists: a scan weighed while ten people scan into a list of 5,000, the list opened, at the API of a library of 60,000 copies.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { p95, timed, took } from './timed.mjs';

const RECORDS = 30_000;
const LISTED = 5000;
const WITHDRAWN = 10_000;
const REGISTERED = 50_000;
const [SCANNERS, SCANS] = [10, 20];

/** Milliseconds from the head's confirming until the last copy is in the register. */
async function withdrawMany(ask, codes) {
  const { id } = await ask('POST', '/withdrawal-lists', { name: 'Many', branch: 'MR', reason: 'worn' });
  const path = `/withdrawal-lists/${id}`;
  await ask('POST', `${path}/scans`, { codes });
  // A copy on two open lists is stopped.
  for (const other of await ask('GET', '/withdrawal-lists'))
    if (other.id !== id) await ask('DELETE', `/withdrawal-lists/${other.id}`);
  const { verdicts } = await ask('GET', path);
  const copies = verdicts.filter((v) => v.verdict !== 'stop' && !v.again).map((v) => v.candidate.copyId);
  if (copies.length < codes.length * 0.9) throw new Error(`Only ${copies.length} copies can be withdrawn.`);
  const time = await took(async () => {
    const { job } = await ask('POST', `${path}/withdraw`, { copies });
    for (;;) {
      const { state, message } = await ask('GET', `/jobs/${job}`);
      if (state === 'done') return;
      if (state === 'failed') throw new Error(message);
      await new Promise((r) => setTimeout(r, 100));
    }
  });
  return (time * codes.length) / copies.length;
}

/** The words that are looked for in the register: a frequent one, a rare one, a name and a part of a barcode, one that it has not. */
const SEARCHES = ['the', 'hedge', 'boat building', 'holt', '00051', 'the the zzz', ''];
const REGISTER_ORDERS = ['on', 'title', 'number', 'price'];

/** Writes a register of so many rows into the store of a server that is stopped, as if they had been withdrawn over ten years. */
async function fillRegister(folder, rows) {
  const db = await new Promise((resolve, reject) => {
    const opened = new sqlite3.Database(join(folder, 'osier.sqlite'), (e) =>
      e ? reject(e) : resolve(opened),
    );
  });
  const sql = `
    CREATE TEMP TABLE going AS SELECT 1000000 + row_number() OVER (ORDER BY c.id) AS id, c.id AS copy, c.barcode, c.value AS copied, c.price, h.id AS holding, h.record,
        h.branch, h.location, h.call_number, r.title, r.author, r.sort, date('2016-01-01', (c.id * 7919 % 3650) || ' days') AS day,
        CASE c.id % 4 WHEN 0 THEN 'worn' WHEN 1 THEN 'superseded' WHEN 2 THEN 'damaged' ELSE 'duplicate' END AS reason
      FROM copies c JOIN holdings h ON h.id = c.holding JOIN record_rows r ON r.id = h.record LIMIT ${rows};
    INSERT INTO withdrawn (id, version, value, barcode, record, withdrawn_on, branch, reason, price, filing, call_number, words, holding, gone)
      SELECT id, 1, json_object('copy', json(copied), 'copyId', copy, 'record', record, 'title', title, 'branch', branch, 'location', location, 'callNumber', call_number,
          'withdrawnOn', day, 'by', 'Nell Arkwright', 'reason', reason, 'lastCopy', json('false'), 'author', author, 'list', 'Ten years'),
        barcode, record, day, branch, reason, price, sort, call_number, lower(title || ' ' || author || ' ' || barcode || ' ' || call_number || ' ten years'), holding, 0 FROM going;
    INSERT INTO daybook_objects (kind, object, entry) SELECT 'withdrawn', id, 1 FROM going;`;
  await new Promise((resolve, reject) => db.exec(sql, (e) => (e ? reject(e) : resolve())));
  await new Promise((resolve) => db.close(resolve));
}

/** Milliseconds of searches of a register of so many rows, in each order, first pages and the second. */
async function searchRegister(folder, rows) {
  await fillRegister(folder, rows);
  const server = await start(folder);
  const { ask } = await client(server);
  const times = [];
  for (let round = 0; round < 4; round++)
    for (const q of SEARCHES)
      for (const sort of REGISTER_ORDERS) {
        const path = `/register?q=${encodeURIComponent(q)}&sort=${sort}`;
        let page;
        times.push(await took(async () => (page = await ask('GET', path))));
        if (page.next)
          times.push(await took(() => ask('GET', `${path}&after=${encodeURIComponent(page.next)}`)));
      }
  server.process.kill('SIGKILL');
  await server.ended;
  return p95(times);
}

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
  for (let after = ''; after !== null && codes.length < WITHDRAWN;) {
    const page = await ask('GET', `/stocktakes/${stocktake}/shelf?after=${after}`);
    codes.push(...page.rows.map((r) => r.barcode));
    after = page.next;
  }
  while ((await ask('GET', `/stocktakes/${stocktake}`)).comparing)
    await new Promise((r) => setTimeout(r, 500));
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
  const withdrawn = await withdrawMany(ask, codes.slice(0, WITHDRAWN));
  server.process.kill('SIGKILL');
  await server.ended;
  const searched = await searchRegister(folder, REGISTERED);
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
    {
      work: `${WITHDRAWN.toLocaleString('en-GB')} copies withdrawn by the job, the loans desk asked about each`,
      ...{ against, ours: withdrawn, theirs: 20_000, budget: 1, unit: 'ms' },
    },
    {
      work: `a register of ${REGISTERED.toLocaleString('en-GB')} searched and sorted (p95)`,
      ...{ against, ours: searched, theirs: 150, budget: 1, unit: 'ms' },
    },
  ];
}
