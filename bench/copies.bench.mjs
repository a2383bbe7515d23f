// Copies at the API: labels of five hundred as a PDF, ten copies added at once, a scanned barcode looked up by ten scanners.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bundled } from './bundled.mjs';
import { client, start } from './served.mjs';
import { timed } from './timed.mjs';

const LABELS = 500;
const ROUNDS = 30;
const SCANNERS = 10;
const SHEET = {
  name: '',
  ...{ pageWidth: 210, pageHeight: 297, columns: 3, rows: 8 },
  ...{ left: 7, top: 12, width: 63, height: 32, gapX: 3.5, gapY: 2.2 },
};

const p95 = (took) => [...took].sort((a, b) => a - b)[Math.ceil(took.length * 0.95) - 1];
async function took(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

export async function copiesBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-copies-'));
  const records = process.env.OSIER_BENCH_STORE ?? '5000';
  await timed(process.execPath, [await bundled('big-store'), folder, records]);
  const server = await start(folder);
  const { ask, file } = await client(server);
  const detail = async (id) => ask('GET', `/records/${id}`);
  const stocked = [];
  for (let id = 1; stocked.length < ROUNDS + SCANNERS; id++) {
    const found = await detail(id);
    if (found.holdings[0]?.copies.length) stocked.push(found);
  }
  const copies = Array.from({ length: LABELS }, (_, i) => i + 1);
  const labels = await took(() => file('/labels/pdf', { kind: 'barcode', sheet: SHEET, copies }));
  const again = await took(() => file('/labels/pdf', { kind: 'spine', sheet: SHEET, copies }));
  const added = [];
  for (const [n, record] of stocked.slice(0, ROUNDS).entries()) {
    const { scheme, branch, location, class: cls, item } = record.holdings[0].holding;
    const { type } = record.holdings[0].copies[0].copy;
    const rows = Array.from({ length: 10 }, (_, i) => ({
      ...{ scheme, branch, location, class: cls, item, type },
      barcode: `BENCH${String(n * 10 + i).padStart(5, '0')}`,
    }));
    added.push(
      await took(() => ask('POST', '/copies/several', { record: record.id, rows, keepBarcodes: true })),
    );
  }
  const codes = stocked.map((r) => r.holdings[0].copies[0].copy.barcode);
  const looked = [];
  await Promise.all(
    Array.from({ length: SCANNERS }, async () => {
      for (const code of codes) looked.push(await took(() => ask('GET', `/look-up?q=${code}`)));
    }),
  );
  const lists = {};
  for (const query of [
    '',
    'status=missing',
    'branch=MR&numberFrom=600&numberTo=699',
    'barcode=0001',
    'sort=price&noPrice=yes',
  ]) {
    const each = [];
    for (let i = 0; i < 20; i++) each.push(await took(() => ask('GET', `/copies?${query}`)));
    lists[query || 'all'] = p95(each);
  }
  const changing = await changeAll(ask);
  server.process.kill('SIGKILL');
  await server.ended;
  rmSync(folder, { recursive: true });
  const row = (work, ours, theirs) => ({ work, against: 'the budget', ours, theirs, budget: 1, unit: 'ms' });
  return [
    row(`${LABELS} barcode labels set and printed, the first time`, labels, 5000),
    row(`${LABELS} spine labels, in a thread that is warm`, again, 5000),
    row('ten copies added at once', p95(added), 150),
    ...Object.entries(lists).map(([query, ms]) => row(`copies listed: ${query}`, ms, 150)),
    row('ten thousand copies changed', changing, 15_000),
    row(`a scanned barcode looked up, ${SCANNERS} at once`, p95(looked), 50),
  ];
}

/** Changes all copies of the library, and waits for the job; gives its time for ten thousand. */
async function changeAll(ask) {
  const edits = [{ part: 'condition', how: 'set', value: 'sound' }];
  let message = '';
  const ms = await took(async () => {
    const { id } = await ask('POST', '/copies/change', { edits });
    for (;;) {
      const job = await ask('GET', `/jobs/${id}`);
      message = job.message ?? '';
      if (job.state !== 'running' && job.state !== 'waiting') return;
      await new Promise((r) => setTimeout(r, 50));
    }
  });
  const changed = Number(/[\d,]+/.exec(message)?.[0].replaceAll(',', ''));
  if (!changed) throw new Error(`Nothing was changed: ${message}`);
  return (ms / changed) * 10_000;
}
