import type { DeliveryRow, DeliverySummary, Problem } from '@osier/contract';
import { field, writeIso2709, type MarcRecord } from '@osier/core/marc';
import { createReadStream, existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import { breaches } from '../testing/invariants';
import { startTesting, type Ask } from '../testing/running';
import { clearLeftOvers, keepFile } from './keep-file';

let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
let cookie: string;
beforeAll(async () => {
  t = await startTesting();
  cataloguer = await t.as(2);
  const signed = await t.ask('POST', '/sign-in/demo', { person: 2 });
  cookie = signed.headers.get('set-cookie')!.split(';')[0]!;
});
afterAll(() => t.stop());

const record = (n: number): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '001', value: `u${n}` }, field('245', '10', 'a', `Uploaded title ${n}`)],
});
const file = (n: number) =>
  Buffer.concat(Array.from({ length: n }, (_, i) => Buffer.from(writeIso2709(record(i)))));
const arriving = () => readdirSync(join(t.folder, 'deliveries')).filter((n) => n.startsWith('arriving-'));

test('an upload that is cut off leaves nothing, and the server lives', async () => {
  const { hostname, port } = new URL(t.running.address);
  await new Promise<void>((done) => {
    const req = request({
      hostname,
      port,
      path: '/api/deliveries?name=cut.mrc',
      method: 'POST',
      headers: { cookie, 'content-length': 1_000_000 },
    });
    req.on('error', () => undefined);
    req.on('close', () => done());
    req.write(file(100));
    setTimeout(() => req.destroy(), 100);
  });
  for (let i = 0; i < 100 && arriving().length > 0; i++) await new Promise((r) => setTimeout(r, 20));
  expect(arriving()).toEqual([]);
  expect((await cataloguer('GET', '/today')).status).toBe(200);
});

test('a file that is too large is refused before it is sent; a disk that cannot take it ends in one sentence', async () => {
  const { hostname, port } = new URL(t.running.address);
  const answer = await new Promise<{ status: number; body: Problem }>((done, fail) => {
    const req = request(
      {
        hostname,
        port,
        path: '/api/deliveries?name=big.mrc',
        method: 'POST',
        headers: { cookie, 'content-length': 5_000_000_000 },
      },
      (res) => {
        let text = '';
        res.on('data', (d: Buffer) => (text += d.toString()));
        res.on('end', () => {
          done({ status: res.statusCode!, body: JSON.parse(text) as Problem });
          req.destroy();
        });
      },
    );
    req.on('error', fail);
    req.write('00');
  });
  expect([answer.status, answer.body.detail]).toEqual([413, expect.stringContaining('up to 64 MB')]);
  // /dev/full refuses every byte as a full disk does; where the folder is no folder, nothing can be kept either.
  writeFileSync(join(t.folder, 'no-folder'), '');
  const body = Object.assign(createReadStream(join(t.folder, 'osier.sqlite')), { headers: {} });
  await expect(
    keepFile(body as unknown as Parameters<typeof keepFile>[0], {
      data: join(t.folder, 'no-folder'),
      largestFile: 1e9,
    }),
  ).rejects.toThrow();
  expect(existsSync(join(t.folder, 'no-folder', 'deliveries'))).toBe(false);
});

test('a file that turns out too large while it is sent is told so, and leaves nothing', async () => {
  const { hostname, port } = new URL(t.running.address);
  const answer = await new Promise<{ status: number; text: string }>((done, fail) => {
    const req = request(
      { hostname, port, path: '/api/deliveries?name=grows.mrc', method: 'POST', headers: { cookie } },
      (res) => {
        let text = '';
        res.on('data', (d: Buffer) => (text += d.toString()));
        res.on('end', () => done({ status: res.statusCode!, text }));
      },
    );
    req.on('error', fail);
    const chunk = Buffer.alloc(1 << 20, 0x30);
    let sent = 0;
    const more = (): void => {
      if (sent++ === 70) return void req.end();
      if (req.write(chunk)) setImmediate(more);
      else req.once('drain', more);
    };
    more();
  });
  expect([answer.status, answer.text]).toEqual([413, expect.stringContaining('up to 64 MB')]);
  expect(arriving()).toEqual([]);
});

test('six deliveries accepted at once from one label roll all get numbers of their own', async () => {
  const head = await t.as(1);
  const roll = { name: 'Six', prefix: '66', from: 0, to: 999, length: 10, check: false, supplier: '' };
  const { body: made } = await head<{ id: number }>('POST', '/label-rolls', { roll });
  const ids = await Promise.all(
    Array.from({ length: 6 }, async (_, d) => {
      const own = Buffer.concat(
        Array.from({ length: 30 }, (_x, i) =>
          Buffer.from(
            writeIso2709({
              leader: '00000nam a2200000 i 4500',
              fields: [
                field('082', '04', 'a', '746.41', '2', '23'),
                field('100', '1 ', 'a', `Roller, ${d} ${i}`),
                field('245', '10', 'a', `Rolled title ${d} ${i}`),
              ],
            }),
          ),
        ),
      );
      const { body } = await head<{ delivery: number; job: number }>(
        'POST',
        `/deliveries?name=six${d}.mrc`,
        new Uint8Array(own),
      );
      await t.jobDone(head, body.job);
      const { body: summary } = await head<DeliverySummary>('GET', `/deliveries/${body.delivery}/summary`);
      const defaults = {
        ...summary.settings.defaults,
        branch: 'MR',
        location: 'OPEN',
        type: 'BK',
        copies: 1,
      };
      const settings = { ...summary.settings, roll: made.id, defaults };
      const job = await head<{ id: number }>('PUT', `/deliveries/${body.delivery}/settings`, {
        version: summary.version,
        sheet: null,
        settings,
      });
      expect(job.status).toBe(202);
      await t.jobDone(head, job.body.id);
      return body.delivery;
    }),
  );
  const done = await Promise.all(
    ids.map(async (id) => {
      const { body } = await head<{ id: number }>('POST', `/deliveries/${id}/accept`, {});
      return t.jobDone(head, body.id);
    }),
  );
  expect(done.map((j) => j.state)).toEqual(ids.map(() => 'done'));
  const { store } = t.running.services;
  const numbers = await store.rows<{ serial: number }>(
    'SELECT serial FROM roll_numbers WHERE roll = :id ORDER BY serial',
    { id: made.id },
  );
  const copies = await store.row<{ n: number }>(
    "SELECT COUNT(*) AS n FROM copies WHERE barcode LIKE '66%' AND length(barcode) = 10",
  );
  expect(numbers.length).toBe(copies!.n);
  expect(numbers.length).toBeGreaterThan(100);
  expect(await breaches(store)).toEqual([]);
});

test('what a server that was killed left half arrived is cleared at the next start, and nothing else', async () => {
  const folder = join(t.folder, 'left');
  mkdirSync(join(folder, 'deliveries'), { recursive: true });
  for (const name of ['arriving-1', 'abc']) writeFileSync(join(folder, 'deliveries', name), 'x');
  await clearLeftOvers(folder);
  expect(readdirSync(join(folder, 'deliveries'))).toEqual(['abc']);
});

test('a reading that is cancelled says how far it came', async () => {
  const { body } = await cataloguer<{ delivery: number; job: number }>(
    'POST',
    '/deliveries?name=long.mrc',
    new Uint8Array(file(20_000)),
  );
  for (;;) {
    const job = (await cataloguer<{ done: number; state: string }>('GET', `/jobs/${body.job}`)).body;
    if (job.done > 0 || job.state === 'done') break;
  }
  await cataloguer('POST', `/jobs/${body.job}/cancel`);
  expect((await t.jobDone(cataloguer, body.job)).state).toBe('cancelled');
  const row = (await cataloguer<DeliveryRow>('GET', `/deliveries/${body.delivery}`)).body;
  expect(row).toMatchObject({
    state: 'cancelled',
    problem: expect.stringMatching(/^Cancelled, [\d,]+ of about [\d,]+ records read\.$/) as string,
  });
  expect(row.records).toBeGreaterThan(0);
});

test('a scanner’s file of 90,000 codes is loaded as a job; 5,001 in one request are refused at once', async () => {
  const head = await t.as(1);
  const { body } = await head<{ id: number }>('POST', '/stocktakes', { name: 'Large', branch: 'MR' });
  const codes = Array.from({ length: 90_000 }, (_, i) => String(31204000000000 + i));
  const refused = await head<Problem>('POST', `/stocktakes/${body.id}/scans`, {
    codes: codes.slice(0, 5001),
  });
  expect([refused.status, refused.body.detail]).toEqual([422, expect.stringMatching(/5,000 scans at once/)]);
  const job = await head<{ id: number }>(
    'POST',
    `/stocktakes/${body.id}/load-file?name=scans.txt`,
    new TextEncoder().encode(codes.join('\n')),
  );
  expect(job.status).toBe(202);
  expect((await t.jobDone(head, job.body.id)).message).toBe('Loaded 90,000 scans from scans.txt.');
  // More barcodes than one statement could name: closing looks them up by the table of what was seen.
  const closing = await head<{ id: number }>('POST', `/stocktakes/${body.id}/close`, {});
  expect(closing.status).toBe(202);
  expect((await t.jobDone(head, closing.body.id)).state).toBe('done');
  const again = await head<{ id: number }>('POST', '/stocktakes', { name: 'Again', branch: 'MR' });
  const prose = await head<{ id: number }>(
    'POST',
    `/stocktakes/${again.body.id}/load-file?name=x.txt`,
    new TextEncoder().encode(`${'This is a letter to the shelf assistant. '.repeat(3)}\n`),
  );
  expect(await t.jobDone(head, prose.body.id)).toMatchObject({
    state: 'failed',
    message: expect.stringMatching(/does not look like a scanner’s file/) as string,
  });
}, 120_000);

test('a search by address looks through the records in a process of its own, and ends when nobody waits for it', async () => {
  const all = await cataloguer<{ total: number }>(
    'GET',
    `/records?q=${encodeURIComponent('245$a{$a~\\willow}')}`,
  );
  expect(all.body.total).toBeGreaterThan(0);
  const controller = new AbortController();
  const gone = fetch(`${t.running.address}/api/records?q=${encodeURIComponent('650$a{$a~\\x}')}`, {
    headers: { cookie },
    signal: controller.signal,
  });
  controller.abort();
  await expect(gone).rejects.toThrow();
  const deep = `${'500{'.repeat(30)}500$a${'}'.repeat(30)}`;
  expect((await cataloguer('GET', `/records?q=${encodeURIComponent(deep)}`)).status).toBe(200);
});
