import type {
  BriefDetail,
  BriefPage,
  Done,
  HouseBody,
  JobState,
  NeighbourRow,
  RecordDetail,
  Today,
} from '@osier/contract';
import { controlValue, dataFields, firstValue } from '@osier/core/marc';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoBriefs } from '../../../demo/briefs';
import { makeLibrary } from '../../../demo/library';
import { neighbourShelves } from '../../../demo/neighbours';
import { neighbourCatalogues } from '../../standins/neighbours';
import { client, kill, killAll, start } from '../testing/killing';
import { root, startTesting, type Ask } from '../testing/running';
import { beginAtNight } from './every-night';

const library = makeLibrary();
const shelves = neighbourShelves(library);
const briefs = demoBriefs(library);

let site: Server;
let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let cataloguer: Ask;
beforeEach(async () => {
  site = neighbourCatalogues(shelves, 0.02);
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
  const { port } = site.address() as AddressInfo;
  t = await startTesting({
    neighbourHosts: new Map([['neighbours.wickmere.example', { host: '127.0.0.1', port }]]),
    nightHour: 2,
  });
  [head, cataloguer] = [await t.as(1), await t.as(2)];
  // Whether the one that fails has a record depends on how it fails: it is asked about elsewhere.
  const { body } = await head<NeighbourRow[]>('GET', '/neighbours');
  const last = body.at(-1)!;
  const off = { neighbour: { ...last.neighbour, isUsed: false }, password: null, version: last.version };
  await head('PUT', `/neighbours/${last.id}`, off);
});
afterEach(async () => {
  await t.stop();
  site.closeAllConnections();
  site.close();
});
afterAll(killAll);

const list = async (which: string) =>
  (await cataloguer<BriefPage>('GET', `/brief-records?list=${which}`)).body;
const detail = async (id: number) => (await cataloguer<BriefDetail>('GET', `/brief-records/${id}`)).body;
const record = async (id: number) => (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
const askAll = async () =>
  t.jobDone(cataloguer, (await cataloguer<JobState>('POST', '/brief-records/ask')).body.id);
const offer = ({ version, asked }: BriefDetail) => ({ version, asked, withErrors: false });

test('a sure full record takes the place of its brief one; an unsure one waits for a person; the rest goes on waiting', async () => {
  const before = await list('waiting');
  expect(before.rows.map((r) => r.record).sort()).toEqual(briefs.map((b) => b.id));
  expect(before.counts).toEqual({ waiting: 6, offered: 0, refused: 0, long: 2 });
  expect((await list('long')).rows).toHaveLength(2);
  const copies = (await record(briefs[0]!.id)).holdings;
  const done = await askAll();
  expect(done).toMatchObject({ state: 'done', done: 6 });
  expect(done.message).toBe('Asked for 6 brief records: 3 replaced by their full ones, 2 to be looked at.');
  const [wrongTitle, noNumber, nobodys] = [briefs[2]!, briefs[4]!, briefs[5]!];
  for (const i of [0, 1, 3]) {
    const { marc, holdings } = await record(briefs[i]!.id);
    expect(marc.leader[17]).not.toBe('3');
    expect(controlValue(marc, '001')).toBe(String(briefs[i]!.id));
    expect(controlValue(marc, '008')!.slice(0, 6)).toBe('260901');
    expect(dataFields(marc, /^6[0-5]\d$/).length).toBeGreaterThan(0);
    expect(holdings[0]!.copies[0]!.copy.barcode).toBe(briefs[i]!.copy.barcode);
  }
  expect((await record(briefs[0]!.id)).holdings).toEqual(copies);
  const offered = await list('offered');
  expect(offered.rows.map((r) => [r.record, r.reason])).toEqual([
    [noNumber.id, expect.stringMatching(/No number says/)],
    [wrongTitle.id, expect.stringMatching(/a video, the other a book/)],
  ]);
  expect((await list('waiting')).rows).toMatchObject([
    { record: nobodys.id, reason: 'None of the neighbours has more of it.' },
  ]);
  expect((await cataloguer<Today>('GET', '/today')).body.briefRecords).toEqual({ offered: 2, long: 2 });
  // All of one run are one entry; what it brought can be undone, and is not brought again.
  const entry = done.entry!;
  await cataloguer('POST', `/daybook/${entry}/undo`);
  expect((await record(briefs[0]!.id)).marc.leader[17]).toBe('3');
  expect((await askAll()).message).toMatch(/ 0 replaced by their full ones/);
  expect((await record(briefs[0]!.id)).marc.leader[17]).toBe('3');
});

test('what is offered is taken with our fields and number, or refused and not offered again', async () => {
  await askAll();
  const [wrongTitle, noNumber] = [briefs[2]!.id, briefs[4]!.id];
  const [bad, good] = [await detail(wrongTitle), await detail(noNumber)];
  expect(controlValue(good.offer!.marc, '001')).toBe(String(noNumber));
  expect(good.from).toBe('National Library of the Fens');
  // An assistant may not; what was looked at before is not what is taken.
  expect((await (await t.as(3))('POST', `/brief-records/${noNumber}/take`, offer(good))).status).toBe(403);
  const stale = { ...offer(good), asked: '2020-01-01T00:00:00.000Z' };
  expect((await cataloguer('POST', `/brief-records/${noNumber}/take`, stale)).status).toBe(409);
  expect(
    (await cataloguer('POST', `/brief-records/${noNumber}/take`, { ...offer(good), version: 9 })).status,
  ).toBe(409);
  const took = (await cataloguer<Done>('POST', `/brief-records/${noNumber}/take`, offer(good))).body;
  expect(took.sentence).toMatch(
    /^Replaced the brief record “.*” by the full one of National Library of the Fens$/,
  );
  expect((await record(noNumber)).marc).toEqual(good.offer!.marc);
  expect((await cataloguer('GET', `/brief-records/${noNumber}`)).status).toBe(404);
  const refused = await cataloguer<{ sentence: string }>(
    'POST',
    `/brief-records/${wrongTitle}/refuse`,
    offer(bad),
  );
  expect(refused.body.sentence).toBe('It is not offered again for “Walking the sea wall”');
  await askAll();
  const { counts } = await list('refused');
  expect(counts).toMatchObject({ offered: 0, refused: 1 });
  // After all it was the one.
  const again = await detail(wrongTitle);
  expect(again.offer).not.toBeNull();
  const taken = await cataloguer<Done>('POST', `/brief-records/${wrongTitle}/take`, offer(again));
  expect(taken.status).toBe(200);
  expect(firstValue((await record(wrongTitle)).marc, '245', 'a')).not.toMatch(/sea wall/);
  await cataloguer('POST', `/daybook/${taken.body.entry}/undo`);
  expect((await detail(wrongTitle)).marc).toEqual(bad.marc);
});

test('a record that somebody changes while it is asked for is left as it is', async () => {
  site.prependListener('request', (req) => {
    if (!/query=/.test(req.url ?? '') || isChanged) return;
    isChanged = true;
    void (async () => {
      const { version, marc } = await record(briefs[0]!.id);
      const fields = [
        ...marc.fields,
        { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Seen on the trolley.' }] },
      ];
      const body = { version, marc: { ...marc, fields }, withErrors: true };
      changed((await cataloguer('PUT', `/records/${briefs[0]!.id}`, body)).status);
    })();
  });
  let isChanged = false;
  let changed: (status: number) => void = () => undefined;
  const change = new Promise<number>((done) => (changed = done));
  const done = await askAll();
  expect(await change).toBe(200);
  expect(done.message).toMatch(/[23] replaced/);
  expect(firstValue((await record(briefs[0]!.id)).marc, '500', 'a')).toBe('Seen on the trolley.');
});

test('it is asked once a night, when the house has it so, and by nobody', async () => {
  const { services } = t.running;
  const at = (hour: number, day = 3) => new Date(2031, 4, day, hour, 20);
  expect(await beginAtNight(services, at(12))).toBe(false);
  expect(await beginAtNight(services, at(1))).toBe(false);
  const { body } = await head<{ house: { version: number; value: HouseBody } }>('GET', '/set-up');
  const save = async (more: Partial<HouseBody>, version: number) =>
    expect((await head('PUT', '/set-up/house', { ...body.house.value, ...more, version })).status).toBe(200);
  await save({ askAtNight: false }, body.house.version);
  expect(await beginAtNight(services, at(2))).toBe(false);
  await save({ askAtNight: true, briefDays: 300 }, body.house.version + 1);
  expect((await list('long')).rows).toHaveLength(0);
  expect(await beginAtNight(services, at(2))).toBe(true);
  await services.jobs.idle();
  const { rows } = (await cataloguer<{ rows: { sentence: string; person: string }[] }>('GET', '/daybook'))
    .body;
  expect(rows[0]).toMatchObject({ sentence: 'Replaced 3 brief records by their full ones', person: 'Osier' });
  // It was begun a moment ago by the clock of this machine: for that night it is done.
  const now = new Date();
  const tonight = { ...services, settings: { ...services.settings, nightHour: now.getHours() } };
  expect(await beginAtNight(tonight, now)).toBe(now.getMinutes() === 0 && now.getSeconds() < 5);
});

test('with nobody to ask, or nothing to ask for, it says so', async () => {
  const { body } = await head<NeighbourRow[]>('GET', '/neighbours');
  for (const { id, neighbour, version } of body)
    await head('PUT', `/neighbours/${id}`, {
      neighbour: { ...neighbour, isUsed: false },
      password: null,
      version,
    });
  const none = await cataloguer<{ detail: string }>('POST', '/brief-records/ask');
  expect([none.status, none.body.detail]).toEqual([422, 'No neighbour is set up that could be asked.']);
  expect((await (await t.as(3))('POST', '/brief-records/ask')).status).toBe(403);
  expect((await cataloguer('GET', '/brief-records/1')).status).toBe(404);
});

test('killed in the middle: each is replaced once, none is lost', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'osier-briefs-'));
  copyFileSync(join(root, '.cache/test-library/osier.sqlite'), join(folder, 'osier.sqlite'));
  const slow = neighbourCatalogues(shelves, 0.6);
  await new Promise<void>((done) => slow.listen(0, '127.0.0.1', done));
  process.env.OSIER_NEIGHBOUR_HOSTS = `neighbours.wickmere.example=127.0.0.1:${(slow.address() as AddressInfo).port}`;
  try {
    let server = await start(folder);
    const { ask } = await client(server);
    const { id } = await ask<JobState>('POST', '/brief-records/ask', '{}');
    await new Promise((done) => setTimeout(done, 500));
    await kill(server);
    server = await start(folder);
    const after = (await client(server)).ask;
    let job: JobState;
    do {
      await new Promise((done) => setTimeout(done, 100));
      job = await after<JobState>('GET', `/jobs/${id}`);
    } while (job.state === 'running' || job.state === 'waiting');
    expect(job).toMatchObject({
      state: 'done',
      message: expect.stringMatching(/^Asked for 6 brief records: 3 replaced/) as string,
    });
    await kill(server);
  } finally {
    delete process.env.OSIER_NEIGHBOUR_HOSTS;
    slow.closeAllConnections();
    slow.close();
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
  }
}, 120_000);
