import type { JobState, LinkPage, LinkRow, RecordDetail } from '@osier/contract';
import { field } from '@osier/core/marc';
import type { AddressInfo, Server } from 'node:net';
import { unsafeWebSite, webSite } from '../../standins/web-site';
import { readSettings } from '../settings';
import { startTesting, type Ask } from '../testing/running';
import { isOwnNetwork } from './own-network';
import { tryLink, type LinkSettings } from './try-link';

let sites: readonly (Server & { closeAllConnections(): void })[];
let links: LinkSettings;
let t: Awaited<ReturnType<typeof startTesting>>;
let cataloguer: Ask;
beforeAll(async () => {
  sites = [webSite(), unsafeWebSite()] as typeof sites;
  const [plain, unsafe] = await Promise.all(
    sites.map(
      (site) =>
        new Promise<number>((done) =>
          site.listen(0, '127.0.0.1', () => done((site.address() as AddressInfo).port)),
        ),
    ),
  );
  links = {
    patience: 1500,
    hosts: new Map([
      ['osmere.example', { host: '127.0.0.1', port: plain! }],
      ['unsafe.example', { host: '127.0.0.1', port: unsafe! }],
      ['closed.example', { host: '127.0.0.1', port: 1 }],
    ]),
  };
  t = await startTesting({ links });
  cataloguer = await t.as(2);
});
afterAll(async () => {
  await t.stop();
  for (const site of sites) {
    site.closeAllConnections();
    site.close();
  }
});

test.each([
  ['http://osmere.example/fine', 'fine', 200, ''],
  ['http://osmere.example/moved', 'moved', 200, 'http://osmere.example/fine'],
  ['http://osmere.example/for-now', 'fine', 200, ''],
  ['http://osmere.example/moved-to-gone', 'gone', 404, 'http://osmere.example/gone'],
  ['http://osmere.example/gone', 'gone', 404, ''],
  ['http://osmere.example/locked', 'needs sign-in', 403, ''],
  ['http://osmere.example/faulty', 'faulty', 503, ''],
  ['http://osmere.example/looping', 'looping', 302, ''],
  ['http://osmere.example/not-a-site', 'faulty', 302, ''],
  ['http://osmere.example/endless', 'fine', 200, ''],
  ['http://osmere.example/slow', 'slow', null, ''],
  ['https://unsafe.example/fine', 'not secure', null, ''],
  ['https://osmere.example/fine', 'faulty', null, ''],
  ['http://closed.example/', 'unreachable', null, ''],
  ['http://no-such-site.invalid/', 'unreachable', null, ''],
  // Into the own network by name, by number, by another way of writing it, and by way of a site outside.
  ['http://localhost/', 'own network', null, ''],
  ['http://127.0.0.1/', 'own network', null, ''],
  ['http://2130706433/', 'own network', null, ''],
  ['http://0x7f.1/', 'own network', null, ''],
  ['http://[::1]/', 'own network', null, ''],
  ['http://[::ffff:10.0.0.1]/', 'own network', null, ''],
  ['http://osmere.example/inside', 'own network', 302, ''],
  ['http://osmere.example/inside-by-number', 'own network', 302, ''],
])('%s is found %s', async (url, result, status, movedTo) => {
  const found = await tryLink(url, links);
  expect(found).toEqual({ result, status, movedTo });
});

test('networks of one’s own are told from the world’s', () => {
  for (const own of [
    '10.1.2.3',
    '172.31.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '0.0.0.0',
    '224.0.0.1',
    '255.255.255.255',
  ])
    expect([own, isOwnNetwork(own)]).toEqual([own, true]);
  for (const own of [
    '::',
    '::1',
    'fe80::1',
    'fd00::1',
    'ff02::1',
    '::ffff:8.8.8.8',
    '64:ff9b::a00:1',
    '2002:a00:1::',
    'nonsense',
  ])
    expect([own, isOwnNetwork(own)]).toEqual([own, true]);
  for (const open of ['172.32.0.1', '11.0.0.1', '192.169.0.1', '100.128.0.1', '2a00:1450::1', '2600::1'])
    expect([open, isOwnNetwork(open)]).toEqual([open, false]);
});

async function addWith(title: string, ...urls: string[]): Promise<number> {
  const made = await cataloguer<{ id: number }>('POST', '/records', {
    withErrors: true,
    marc: {
      leader: '00000nam a2200000 i 4500',
      fields: [
        { tag: '008', value: '260101s2026    xxk           000 0 eng d' },
        field('245', '00', 'a', title),
        ...urls.map((u) => field('856', '40', 'u', u)),
      ],
    },
  });
  expect(made.status).toBe(201);
  return made.body.id;
}

test('the links of a record are tried on demand, and what was found is kept until they change', async () => {
  const id = await addWith(
    'Pike plates',
    'http://osmere.example/fine',
    'http://osmere.example/gone',
    'ftp://osmere.example/x',
  );
  const links = async (method = 'GET', path = '') =>
    (await cataloguer<{ rows: LinkRow[] }>(method, `/records/${id}/links${path}`)).body.rows;
  expect((await links()).map((r) => [r.url, r.found])).toEqual([
    ['http://osmere.example/fine', null],
    ['http://osmere.example/gone', null],
  ]);
  const tried = await links('POST', '/try');
  expect(tried.map((r) => r.found?.result)).toEqual(['fine', 'gone']);
  expect(tried[1]!.found!.sentence).toContain('nothing at this address');
  expect(Date.now() - Date.parse(tried[0]!.found!.at)).toBeLessThan(60_000);
  expect(await links()).toEqual(tried);
  const { version, marc } = (await cataloguer<RecordDetail>('GET', `/records/${id}`)).body;
  const fields = marc.fields
    .filter((f) => f.tag !== '856')
    .concat(field('856', '40', 'u', 'http://osmere.example/moved'));
  await cataloguer('PUT', `/records/${id}`, { version, withErrors: true, marc: { ...marc, fields } });
  expect((await links()).map((r) => [r.url, r.found])).toEqual([['http://osmere.example/moved', null]]);
  const without = await addWith('Pike without plates');
  expect((await cataloguer('POST', `/records/${without}/links/try`)).status).toBe(422);
  expect((await cataloguer('POST', '/records/999999/links/try')).status).toBe(404);
  const assistant = await t.as(3);
  expect((await assistant('POST', `/records/${id}/links/try`)).status).toBe(403);
  expect((await assistant('POST', '/web-links/try')).status).toBe(403);
});

test('all links are tried by a job: the bad ones are listed by what is wrong, and leave the list when the record is corrected', async () => {
  const [a, b] = [
    await addWith('Roach plates', 'http://osmere.example/gone?shared', 'http://osmere.example/looping'),
    await addWith('Bleak plates', 'http://osmere.example/gone?shared'),
  ];
  const job = await cataloguer<JobState>('POST', '/web-links/try');
  expect(job.status).toBe(202);
  await t.running.services.jobs.idle();
  const done = (await cataloguer<JobState>('GET', `/jobs/${job.body.id}`)).body;
  expect(done).toMatchObject({
    state: 'done',
    message: expect.stringMatching(/^Tried \d+ addresses/) as string,
  });
  const list = async (query: string) => (await cataloguer<LinkPage>('GET', `/web-links?${query}`)).body;
  const gone = await list('result=gone');
  expect(gone.untried).toBe(0);
  expect(gone.rows.filter((r) => r.url.endsWith('shared')).map((r) => r.record)).toEqual([a, b]);
  expect((await list('result=looping')).rows.map((r) => r.record)).toContain(a);
  expect((await list('')).result).toBe('gone');
  const total = gone.counts.reduce((n, c) => n + c.n, 0);
  expect(total).toBe(done.total);
  const { version, marc } = (await cataloguer<RecordDetail>('GET', `/records/${a}`)).body;
  const fields = marc.fields.filter((f) => f.tag !== '856');
  await cataloguer('PUT', `/records/${a}`, { version, withErrors: true, marc: { ...marc, fields } });
  expect(
    (await list('result=gone')).rows.filter((r) => r.url.endsWith('shared')).map((r) => r.record),
  ).toEqual([b]);
  expect((await cataloguer('GET', '/web-links?result=nonsense')).status).toBe(422);
}, 60_000);

test('settings of links that cannot be used are refused by name', () => {
  const { links: own } = readSettings(
    { OSIER_LINK_HOSTS: 'Repository.example=10.0.0.7:443, other.example=[::1]:80' },
    '/',
  );
  expect([...own.hosts]).toEqual([
    ['repository.example', { host: '10.0.0.7', port: 443 }],
    ['other.example', { host: '::1', port: 80 }],
  ]);
  expect(() => readSettings({ OSIER_LINK_HOSTS: 'repository.example' }, '/')).toThrow('OSIER_LINK_HOSTS');
  expect(() => readSettings({ OSIER_LINKS_PATIENCE: 'x' }, '/')).toThrow('OSIER_LINKS_PATIENCE');
});
