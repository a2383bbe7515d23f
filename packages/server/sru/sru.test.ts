import type { HouseBody, NeighbourTrial } from '@osier/contract';
import { briefOf, isbns, yearOf } from '@osier/core/access';
import type { MarcRecord } from '@osier/core/marc';
import { NEW_NEIGHBOUR, readExplain, readSruAnswer } from '@osier/core/neighbours';
import { execFile } from 'node:child_process';
import { SaxesParser } from 'saxes';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

const setHouse = async (more: Partial<HouseBody>) => {
  const { body } = await head<{ house: { version: number; value: HouseBody } }>('GET', '/set-up');
  const saved = await head('PUT', '/set-up/house', {
    ...body.house.value,
    ...more,
    version: body.house.version,
  });
  expect(saved.status).toBe(200);
};
const get = (params: Record<string, string> | string) =>
  fetch(
    `${t.running.address}/sru${typeof params === 'string' ? params : `?${new URLSearchParams(params).toString()}`}`,
  );
/** What a program says that is told something; it must not be waited for in one breath, for it asks the server that runs here. */
const run = (program: string, args: readonly string[], input: string) =>
  new Promise<string>((resolve, reject) => {
    const child = execFile(program, [...args], { timeout: 30_000 }, (error, out, err) =>
      error ? reject(new Error(`${program}: ${error.message}`)) : resolve(out + err),
    );
    child.stdin!.end(input);
  });
/** An answer as text, which must be well-formed XML with namespaces. */
const asked = async (params: Record<string, string> | string): Promise<string> => {
  const response = await get(params);
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'text/xml; charset=utf-8']);
  const text = await response.text();
  new SaxesParser({ xmlns: true }).write(text).close();
  return text;
};
/** The numbers of the records in an answer. */
const numbersIn = (xml: string) => [...xml.matchAll(/<zs:recordIdentifier>(\d+)</g)].map((m) => m[1]!);
const search = async (query: string, more: Record<string, string> = {}) =>
  readSruAnswer(
    new TextEncoder().encode(await asked({ operation: 'searchRetrieve', version: '1.2', query, ...more })),
  );

test('nobody is answered until the head says so, and nobody has to sign in then', async () => {
  expect((await get('')).status).toBe(404);
  expect((await get({ operation: 'searchRetrieve', version: '1.2', query: 'eels' })).status).toBe(404);
  await setHouse({ answersOthers: true });
  expect((await get('')).status).toBe(200);
  const explained = readExplain(new TextEncoder().encode(await asked('')));
  expect(explained).toMatchObject({ title: 'Osier', most: 50 });
  expect(explained!.indexes).toEqual(
    expect.arrayContaining(['dc.title', 'dc.creator', 'bath.isbn', 'rec.identifier']),
  );
  expect(explained!.indexes.join(' ')).not.toMatch(/supplier|fund|status|suppressed|finding/);
  expect(explained!.schemas.map((s) => s.name)).toEqual(['marcxml', 'dc']);
});

test('a search is sorted as its query asks, over pages', async () => {
  const years: string[] = [];
  for (const startRecord of ['1', '5', '9']) {
    const page = await search('willow sortBy dc.date/sort.descending', { maximumRecords: '4', startRecord });
    expect(page.records).toHaveLength(4);
    years.push(...page.records.map((r) => yearOf(r.record!)));
  }
  expect(new Set(years).size).toBeGreaterThan(3);
  expect(years).toEqual([...years].sort().reverse());
  expect((await search('willow sortBy colour')).diagnostics).toMatchObject([{ code: '80' }]);
});

test('a search gives records as MARCXML and as Dublin Core, page by page, without local fields', async () => {
  const first = await search('title any "willow reed" and language = eng', { maximumRecords: '5' });
  expect(first).toMatchObject({ problem: null, diagnostics: [], told: [] });
  expect(first.records).toHaveLength(5);
  expect(first.count).toBeGreaterThan(5);
  const ids: string[] = [];
  for (let start = 1; start <= first.count!; start += 7)
    ids.push(
      ...numbersIn(
        await asked({
          ...{ operation: 'searchRetrieve', version: '1.2', maximumRecords: '7', startRecord: String(start) },
          query: 'title any "willow reed" and language = eng',
        }),
      ),
    );
  expect(ids).toHaveLength(first.count!);
  expect(new Set(ids).size).toBe(ids.length);
  const held = (await head<{ marc: MarcRecord }>('GET', `/records/${ids[0]}`)).body.marc;
  expect(first.records[0]!.record).toEqual(held);
  const [isbn] = isbns(held);
  if (isbn) expect((await search(`bath.isbn = ${isbn}`)).count).toBe(1);
  const dc = await asked({
    ...{
      operation: 'searchRetrieve',
      version: '1.1',
      query: `rec.identifier = ${ids[0]}`,
      recordSchema: 'dc',
    },
  });
  expect(dc).toContain('<zs:recordSchema>info:srw/schema/1/dc-v1.1</zs:recordSchema>');
  expect(dc).toContain(`<title>${briefOf(held).title.replace(/ : /, ' : ').split(' : ')[0]}`);
  const packed = await search(`rec.identifier = ${ids[0]}`, { recordPacking: 'string' });
  expect(packed.records[0]!.record).toEqual(held);
  // A note of the house’s own is not for others.
  const { body } = await head<{ version: number; marc: MarcRecord }>('GET', `/records/${ids[0]}`);
  const own = { tag: '590', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: 'Ask Nell & <b>.' }] };
  const marc = { ...body.marc, fields: [...body.marc.fields, own] };
  expect(
    (await head('PUT', `/records/${ids[0]}`, { version: body.version, marc, withErrors: true })).status,
  ).toBe(200);
  expect(
    (await search(`rec.identifier = ${ids[0]}`)).records[0]!.record!.fields.some((f) => f.tag === '590'),
  ).toBe(false);
  // Nor can it be asked for.
  expect((await search('"ask nell"')).count).toBe(0);
  expect((await search('local = nell')).diagnostics).toMatchObject([{ code: '16' }]);
});

test('what is suppressed is never shown, whatever is asked', async () => {
  const before = (await search('cql.allRecords = 1', { maximumRecords: '1' })).count!;
  expect((await search('rec.identifier = 12')).count).toBe(1);
  const title = briefOf((await head<{ marc: MarcRecord }>('GET', '/records/12')).body.marc).title;
  await head('POST', '/records/12/suppress', { isSuppressed: true });
  expect((await search('rec.identifier = 12')).count).toBe(0);
  expect((await search('rec.identifier = 12 or rec.identifier = 13')).records).toHaveLength(1);
  expect((await search('cql.allRecords = 1', { maximumRecords: '1' })).count).toBe(before - 1);
  const scan = await asked({
    operation: 'scan',
    version: '1.2',
    scanClause: `title = "${title.replace(/"/g, '')}"`,
  });
  expect(scan).not.toContain(`<zs:displayTerm>${title}<`);
});

test.each<[string, Record<string, string>, number]>([
  ['an operation that there is not', { operation: 'update' }, 4],
  ['a version that there is not', { operation: 'searchRetrieve', version: '2.0', query: 'eels' }, 5],
  ['no query', { operation: 'searchRetrieve', version: '1.2' }, 7],
  ['a query that breaks off', { operation: 'searchRetrieve', version: '1.2', query: 'title = "eels' }, 10],
  [
    'an index of the house alone',
    { operation: 'searchRetrieve', version: '1.2', query: 'supplier = TP' },
    16,
  ],
  [
    'an index that there is not',
    { operation: 'searchRetrieve', version: '1.2', query: 'dc.colour = red' },
    16,
  ],
  [
    'a relation that there is not',
    { operation: 'searchRetrieve', version: '1.2', query: 'dc.title > eels' },
    19,
  ],
  ['a relation modifier', { operation: 'searchRetrieve', version: '1.2', query: 'dc.title =/stem eels' }, 20],
  ['a mask', { operation: 'searchRetrieve', version: '1.2', query: 'dc.title = "e?ls"' }, 28],
  ['prox', { operation: 'searchRetrieve', version: '1.2', query: 'eels prox night' }, 37],
  [
    'behind the end',
    { operation: 'searchRetrieve', version: '1.2', query: 'willow', startRecord: '99999' },
    61,
  ],
  [
    'a schema that there is not',
    { operation: 'searchRetrieve', version: '1.2', query: 'eels', recordSchema: 'mods' },
    66,
  ],
  [
    'a packing that there is not',
    { operation: 'searchRetrieve', version: '1.2', query: 'eels', recordPacking: 'zip' },
    71,
  ],
  ['sort keys', { operation: 'searchRetrieve', version: '1.1', query: 'eels', sortKeys: 'title' }, 80],
  [
    'a number that is none',
    { operation: 'searchRetrieve', version: '1.2', query: 'eels', startRecord: '0' },
    6,
  ],
  ['a scan of what has no list', { operation: 'scan', version: '1.2', scanClause: 'isbn = 97' }, 16],
  ['a scan of nothing', { operation: 'scan', version: '1.2' }, 7],
  [
    'a place behind the end',
    { operation: 'scan', version: '1.2', scanClause: 'title = a', maximumTerms: '3', responsePosition: '9' },
    120,
  ],
  [
    'characters of no text',
    { operation: 'searchRetrieve', version: '1.2', query: 'title = "\u0000\u0001' },
    10,
  ],
])('what cannot be answered is told by its diagnostic: %s', async (_, params, code) => {
  expect(await asked(params)).toContain(`<uri>info:srw/diagnostic/1/${code}</uri>`);
});

test('lists of titles, names and years are gone through both ways to their ends', async () => {
  const terms = async (scanClause: string, more: Record<string, string> = {}) => {
    const xml = await asked({ operation: 'scan', version: '1.2', scanClause, ...more });
    return [...xml.matchAll(/<zs:value>([^<]*)<\/zs:value><zs:numberOfRecords>(\d+)</g)].map(
      (m) => [m[1]!, Number(m[2])] as const,
    );
  };
  const all: (readonly [string, number])[] = [];
  for (let next = await terms('title = ""', { maximumTerms: '50' }); next.length;) {
    all.push(...next);
    next = await terms(`title = "${all.at(-1)![0]}"`, { maximumTerms: '50', responsePosition: '0' });
  }
  const total = (await search('cql.allRecords = 1', { maximumRecords: '0' })).count!;
  expect(all.reduce((n, [, count]) => n + count, 0)).toBe(total);
  expect(all.map(([v]) => v)).toEqual([...all.map(([v]) => v)].sort());
  const middle = all[700]!;
  const around = await terms(`title = "${middle[0]}"`, { maximumTerms: '5', responsePosition: '3' });
  expect(around).toEqual(all.slice(698, 703));
  expect((await terms('year = 1990', { maximumTerms: '2' }))[0]![0]).toMatch(/^199\d$/);
  const [name] = await terms('dc.creator = b', { maximumTerms: '1' });
  expect(name![0]).toMatch(/^b/);
});

test('other programs search it: yaz-client and zoomsh of the package yaz, and our own client', async () => {
  const address = `${t.running.address}/sru`;
  const count = (await search('dc.title = willow', { maximumRecords: '0' })).count!;
  for (const version of ['1.1', '1.2']) {
    const said = await run(
      'yaz-client',
      ['-f', '/dev/null'],
      `sru get ${version}\nopen ${address}\nfind dc.title=willow\nshow 1+2\nfind dc.nothing=x\nquit\n`,
    );
    expect(said).toContain(`Number of hits: ${count}`);
    expect(said.match(/<record xmlns="http:\/\/www\.loc\.gov\/MARC21\/slim">/g)).toHaveLength(2);
    expect(said).toContain('info:srw/diagnostic/1/16');
  }
  const zoom = await run(
    'zoomsh',
    [],
    `set sru get\nset preferredRecordSyntax xml\nconnect ${address}\nsearch cql:dc.title=willow\nshow 0 1\nquit\n`,
  );
  expect(zoom).toContain(`${count} hits`);
  expect(zoom).toContain('http://www.loc.gov/MARC21/slim');
  const port = Number(new URL(address).port);
  const other = await startTesting({ neighbourHosts: new Map([['127.0.0.1', { host: '127.0.0.1', port }]]) });
  try {
    const { secret: _, ...neighbour } = { ...NEW_NEIGHBOUR, name: 'Osier', address, version: '1.2' as const };
    const tried = await (
      await other.as(1)
    )<NeighbourTrial>('POST', '/neighbours/try', {
      ...{ neighbour, password: null, of: null, text: 'willow' },
    });
    expect(tried.body).toMatchObject({ isGood: true, explained: { title: 'Osier' } });
    expect(tried.body.count).toBeGreaterThan(0);
  } finally {
    await other.stop();
  }
}, 60_000);

test('one address asks no more than so often in a minute', async () => {
  let statuses: number[] = [];
  for (let i = 0; i < 260 && !statuses.includes(429); i += 20)
    statuses = statuses.concat(
      await Promise.all(
        Array.from({ length: 20 }, async () => (await get({ operation: 'explain', version: '1.2' })).status),
      ),
    );
  expect(statuses).toContain(429);
  expect(statuses.every((s) => s === 200 || s === 429 || s === 503)).toBe(true);
});
