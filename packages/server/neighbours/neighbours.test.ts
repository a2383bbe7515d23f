import type {
  Done,
  NeighbourAnswer,
  NeighbourLookup,
  NeighbourRow,
  NeighbourTrial,
  RecordDetail,
} from '@osier/contract';
import { isbns } from '@osier/core/access';
import { barcodeFor } from '@osier/core/barcodes';
import { dataFields, type MarcRecord } from '@osier/core/marc';
import { bookFacts, NEW_NEIGHBOUR, withoutCover } from '@osier/core/neighbours';
import { readFileSync, statSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { COPY_BARCODES } from '../../../demo/barcodes';
import { makeLibrary } from '../../../demo/library';
import { neighbourShelves } from '../../../demo/neighbours';
import { neighbourCatalogues } from '../../standins/neighbours';
import { startTesting, type Ask } from '../testing/running';
import { getAnswer } from './http-get';

const library = makeLibrary();
const shelves = neighbourShelves(library);
const own = new Set(library.records.flatMap((r) => isbns(r.marc)));
const isbnOf = (marc: MarcRecord) => isbns(marc)[0]!;
/** Books that one shelf has and others have or have not, and the library has not. */
const onlyAt = (shelf: keyof typeof shelves, ...also: (keyof typeof shelves)[]) =>
  shelves[shelf]
    .map(isbnOf)
    .filter(
      (n) =>
        !own.has(n) &&
        (['national', 'regional', 'school'] as const).every(
          (s) => s === shelf || also.includes(s) === shelves[s].some((r) => isbnOf(r) === n),
        ),
    );

let site: Server;
let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let cataloguer: Ask;
beforeAll(async () => {
  site = neighbourCatalogues(shelves, 0.02);
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
  const { port } = site.address() as AddressInfo;
  t = await startTesting({
    neighbourHosts: new Map([
      ['neighbours.wickmere.example', { host: '127.0.0.1', port }],
      ['closed.example', { host: '127.0.0.1', port: 1 }],
    ]),
  });
  [head, cataloguer] = [await t.as(1), await t.as(2)];
});
afterAll(async () => {
  await t.stop();
  site.closeAllConnections();
  site.close();
});

const { secret: _, ...blank } = NEW_NEIGHBOUR;
const typed = (parts: Partial<typeof blank>) => ({ ...blank, schema: 'marcxml', ...parts });
const at = (path: string) => `http://neighbours.wickmere.example/${path}`;
const add = async (parts: Partial<typeof blank>, password: string | null = null) =>
  (await head<Done & { id: number }>('POST', '/neighbours', { neighbour: typed(parts), password })).body;
const find = async (id: number, text: string, more = '') =>
  (await cataloguer<NeighbourAnswer>('GET', `/neighbours/${id}/find?text=${encodeURIComponent(text)}${more}`))
    .body;
const lookup = async (text: string) =>
  (await cataloguer<NeighbourLookup>('GET', `/neighbours/lookup?text=${encodeURIComponent(text)}`)).body;
const list = async () => (await cataloguer<NeighbourRow[]>('GET', '/neighbours')).body;

test('the neighbours of the demo library answer, each in its own manner', async () => {
  expect((await list()).map((n) => [n.neighbour.name, n.neighbour.version, n.out])).toEqual([
    ['National Library of the Fens', '1.2', null],
    ['Osmere Valley Libraries', '2.0', null],
    ['Hurst Lane School', '1.1', null],
    ['Drove End Exchange', '1.1', null],
  ]);
  const isbn = onlyAt('national', 'regional', 'school')[0]!;
  const looked = await lookup(isbn);
  expect(looked).toEqual({ sought: `ISBN ${isbn}`, problem: null, own: [], ask: [[1], [2], [3], [4]] });
  const [national, regional, school] = [await find(1, isbn), await find(2, isbn), await find(3, isbn)];
  for (const a of [national, regional, school])
    expect(a).toMatchObject({ state: 'found', message: '', told: [], count: 1 });
  expect(national.records[0]!.left).toEqual(['852']);
  expect(regional.records[0]!.left).toEqual(['852', '949']);
  const marc = national.records[0]!.marc;
  expect(dataFields(marc, '035').map((f) => f.subfields[0]!.value)).toEqual([
    expect.stringMatching(/^\(NLFens\)nlf\d{7}$/),
  ]);
  expect(marc.fields.some((f) => f.tag === '001')).toBe(false);
  expect(bookFacts(school.records[0]!.marc).title).toBe(bookFacts(marc).title.toUpperCase());
  // Either length, with hyphens: the same book.
  expect((await find(1, `${isbn.slice(0, 3)}-${isbn.slice(3, 5)}-${isbn.slice(5)}`)).records).toEqual(
    national.records,
  );
});

test('what is wrong with an ISBN is told before anybody is asked; what we have already comes first', async () => {
  const isbn = onlyAt('national')[0]!;
  const wrong = isbn.slice(0, 12) + String((Number(isbn[12]) + 1) % 10);
  expect(await lookup(wrong)).toMatchObject({
    problem: expect.stringContaining('check digit') as string,
    ask: [],
  });
  expect((await cataloguer('GET', `/neighbours/1/find?text=${wrong}`)).status).toBe(422);
  const held = library.records.find((r) => isbns(r.marc).length)!;
  const looked = await lookup(isbnOf(held.marc));
  expect(looked.own[0]).toMatchObject({ sure: true, shared: [`ISBN ${isbnOf(held.marc)}`] });
  expect(looked.own.map((o) => o.record)).toContain(held.id);
  expect(looked.own[0]!.branches.length).toBeGreaterThan(0);
  const words = bookFacts(held.marc).title.split(' ').slice(0, 6).join(' ');
  expect((await lookup(words)).own.map((o) => o.record)).toContain(held.id);
});

test('a few words of title and the surname find it too', async () => {
  const book = shelves.national.find(
    (r) => dataFields(r, '100').length && bookFacts(r).title.split(' ').length > 3,
  )!;
  const surname = dataFields(book, '100')[0]!.subfields[0]!.value.split(',')[0]!;
  const title = dataFields(book, '245')[0]!
    .subfields[0]!.value.replace(/[^\p{L} ]/gu, '')
    .split(' ')
    .slice(-2)
    .join(' ');
  const answer = await find(1, `${title} / ${surname}`);
  expect(answer.records.map((r) => bookFacts(r.marc).title)).toContain(bookFacts(book).title);
  expect(await find(1, 'zzz qqq / nobody')).toMatchObject({ state: 'none', records: [], count: 0 });
});

test.each([
  ['slow', 'failed', /did not answer within 1 second/],
  ['http-500', 'failed', /HTTP status 500/],
  ['diagnostic', 'failed', /not working for now. It says: System temporarily unavailable: rebuilding/],
  ['web-page', 'failed', /is a web page/],
  ['reset', 'failed', /broke the connection off/],
  ['endless', 'failed', /larger than 16 MB|did not answer/],
  ['entities', 'failed', /document type definition/],
  ['inside', 'failed', /own network/],
  ['empty', 'failed', /empty/],
] as const)('a source that fails: %s', async (how, state, message) => {
  const { id } = await add({
    name: `Failing ${how}`,
    address: at(`failing/${how}`),
    version: '1.1',
    seconds: 1,
  });
  const answer = await find(id, isbnOf(shelves.failing[0]!));
  expect(answer).toMatchObject({ state, records: [], count: 0 });
  expect(answer.message).toMatch(message);
});

test.each([
  ['broken-xml', /not well-formed|An account|^$/, 1],
  ['too-many', /^$/, 10_000],
  ['marc8', /says that it is UTF-8 and is MARC-8/, 1],
  ['cut-off', /breaks off/, 1],
  ['lies', /says that it is windows-1252 and is UTF-8/, 1],
] as const)('a source that answers badly: %s', async (how, told, count) => {
  const { id } = await add({
    name: `Poor ${how}`,
    address: at(`failing/${how}`),
    version: '1.1',
    seconds: 5,
  });
  const book = shelves.failing[0]!;
  const answer = await find(id, isbnOf(book));
  expect(answer).toMatchObject({ state: 'found', count });
  expect(answer.told.join(' ')).toMatch(told);
  const title = bookFacts(answer.records[0]!.marc).title;
  if (how === 'marc8') expect(title).toMatch(/^Vannerie d'été à Noël : /);
  else if (how === 'lies') expect(title).toMatch(/^Été, /);
  else expect(title).toBe(bookFacts(book).title);
  if (how === 'broken-xml') expect(answer.records[0]!.told.join()).toMatch(/not well-formed/);
});

test('a record of 3 MB is told and not handed on', async () => {
  const { id } = await add({ name: 'Large', address: at('failing/large'), version: '1.1', seconds: 10 });
  const answer = await find(id, isbnOf(shelves.failing[0]!));
  expect(answer).toMatchObject({
    records: [],
    message: expect.stringMatching(/none of it can be read/) as string,
  });
  expect(answer.told.join()).toMatch(/too large to be shown/);
});

test('a source that is down is left out for a while, asked all the same when told to, and never holds up the others', async () => {
  const { id } = await add({ name: 'Closed', address: 'http://closed.example/sru' });
  const isbn = onlyAt('national')[1]!;
  expect(await find(id, isbn)).toMatchObject({ state: 'failed', message: 'It cannot be reached.' });
  const out = (await list()).find((n) => n.id === id)!.out!;
  expect(out.why).toBe('It cannot be reached.');
  expect(Date.parse(out.until)).toBeGreaterThan(Date.parse(out.since));
  expect(await find(id, isbn)).toMatchObject({
    state: 'left out',
    message: 'It is left out for a while: it cannot be reached.',
  });
  expect(await find(id, isbn, '&anyway=1')).toMatchObject({ state: 'failed' });
  const slow = (await add({ name: 'Slow one', address: at('failing/slow'), version: '1.1', seconds: 3 })).id;
  const began = Date.now();
  const order: string[] = [];
  await Promise.all([
    find(slow, isbn).then(() => order.push('slow')),
    find(1, isbn).then((a) => order.push(a.state)),
  ]);
  expect(order).toEqual(['found', 'slow']);
  expect(Date.now() - began).toBeGreaterThanOrEqual(2900);
  // Changing it gives it another chance.
  const row = (await list()).find((n) => n.id === id)!;
  await head('PUT', `/neighbours/${id}`, {
    version: row.version,
    neighbour: { ...row.neighbour, address: at('national') },
    password: null,
  });
  expect(await find(id, isbn)).toMatchObject({ state: 'found' });
});

test('addresses that lead into the own network are refused, by number and by name', async () => {
  for (const [name, address] of [
    ['Numbers', 'http://127.0.0.1:1/'],
    ['Metadata', 'http://169.254.169.254/latest'],
    ['Decimal', 'http://2130706433/'],
    ['Six', 'http://[::1]:80/'],
    ['Mapped', 'http://[::ffff:10.0.0.1]/'],
    ['Localhost', 'http://localhost:1/'],
  ] as const) {
    const { id } = await add({ name, address });
    expect(await find(id, onlyAt('national')[0]!)).toMatchObject({
      state: 'failed',
      message: expect.stringMatching(/own network/) as string,
    });
  }
  expect(
    (
      await head('POST', '/neighbours', {
        neighbour: typed({ name: 'File', address: 'file:///etc/passwd' }),
        password: null,
      })
    ).status,
  ).toBe(422);
});

test('nobody outside leads to what is named as being inside', async () => {
  const lead = createServer((_req, res) =>
    res.writeHead(302, { location: 'http://neighbours.wickmere.example/national?query=eels' }).end(),
  );
  await new Promise<void>((done) => lead.listen(0, '127.0.0.1', done));
  const hosts = new Map([
    ['leading.example', { host: '127.0.0.1', port: (lead.address() as AddressInfo).port }],
    ['neighbours.wickmere.example', { host: '127.0.0.1', port: (site.address() as AddressInfo).port }],
  ]);
  const options = { hosts, signOn: null, signal: new AbortController().signal };
  await expect(getAnswer('http://leading.example/', options)).rejects.toMatchObject({ kind: 'own network' });
  lead.close();
});

test('the sign-on is kept sealed, sent to nobody else and told to nobody', async () => {
  const neighbour = typed({ name: 'Locked', address: at('school/locked'), version: '1.1', user: 'desk' });
  const isbn = isbnOf(shelves.school[0]!);
  const { id } = (await head<{ id: number }>('POST', '/neighbours', { neighbour, password: 'withies' })).body;
  expect(await find(id, isbn)).toMatchObject({ state: 'found' });
  const row = (await list()).find((n) => n.id === id)!;
  expect(row).toMatchObject({ hasPassword: true });
  expect(JSON.stringify(await list())).not.toMatch(/withies|secret/);
  const stored = (await t.running.services.store.read('neighbour', id))!.value.secret;
  expect(stored).toMatch(/^[A-Za-z0-9+/]{40,}=*$/);
  expect(readFileSync(join(t.folder, 'osier.sqlite')).includes('withies')).toBe(false);
  expect(statSync(join(t.folder, 'secrets.key')).mode & 0o777).toBe(0o600);
  // Another name keeps the password; another address asks for it again.
  const renamed = await head('PUT', `/neighbours/${id}`, {
    version: row.version,
    neighbour: { ...row.neighbour, name: 'Locked still' },
    password: null,
  });
  expect(renamed.status).toBe(200);
  const moved = { ...row.neighbour, address: 'http://elsewhere.example/sru' };
  expect(
    (await head('PUT', `/neighbours/${id}`, { version: row.version + 1, neighbour: moved, password: null }))
      .status,
  ).toBe(422);
  expect(
    (await head('POST', '/neighbours/try', { neighbour: moved, password: null, of: id, text: isbn })).status,
  ).toBe(422);
  const wrong = await add({ ...neighbour, name: 'Locked, wrong' }, 'reeds');
  expect(await find(wrong.id, isbn)).toMatchObject({
    state: 'failed',
    message: expect.stringMatching(/refuses the sign-on/) as string,
  });
});

test('trying shows what a source says of itself and what it finds', async () => {
  const isbn = isbnOf(shelves.national[0]!);
  const trial = async (parts: Partial<typeof blank>, text = isbn) =>
    (
      await head<NeighbourTrial>('POST', '/neighbours/try', {
        neighbour: typed({ name: 'T', ...parts }),
        password: null,
        text,
      })
    ).body;
  const good = await trial({ address: at('national') });
  expect(good).toMatchObject({
    isGood: true,
    count: 1,
    titles: [bookFacts(shelves.national[0]!).title],
    told: [],
  });
  expect(good.message).toBe(`It answers: 1 found for ISBN ${isbn}.`);
  expect(good.explained).toMatchObject({
    title: 'National Library of the Fens',
    schemas: ['marcxml'],
    most: 50,
    suggested: { isbn: 'bath.isbn', words: 'cql.anywhere' },
  });
  const index = { ...NEW_NEIGHBOUR.indexes, isbn: 'local.nonsense' };
  expect(await trial({ address: at('national'), indexes: index })).toMatchObject({
    isGood: false,
    message: expect.stringMatching(
      /does not know an index. It says: Unsupported index: local.nonsense/,
    ) as string,
  });
  expect(await trial({ address: at('nowhere') })).toMatchObject({
    isGood: false,
    explained: null,
    message: expect.stringMatching(/nothing at its address/) as string,
  });
  expect(
    (
      await cataloguer('POST', '/neighbours/try', {
        neighbour: typed({ name: 'T', address: at('national') }),
        password: null,
      })
    ).status,
  ).toBe(403);
});

test('who may do what, and two of one name', async () => {
  const assistant = await t.as(3);
  expect((await assistant('GET', '/neighbours')).status).toBe(200);
  expect((await assistant('GET', '/neighbours/1/find?text=eels')).status).toBe(403);
  expect(
    (
      await cataloguer('POST', '/neighbours', {
        neighbour: typed({ name: 'Mine', address: at('national') }),
        password: null,
      })
    ).status,
  ).toBe(403);
  expect(
    (
      await head('POST', '/neighbours', {
        neighbour: typed({ name: 'HURST lane school', address: at('school') }),
        password: null,
      })
    ).status,
  ).toBe(422);
  expect(
    (
      await head('POST', '/neighbours', {
        neighbour: typed({ name: 'R', address: at('school'), recipe: 'gone' }),
        password: null,
      })
    ).status,
  ).toBe(422);
  expect((await cataloguer('GET', '/neighbours/9999/find?text=eels')).status).toBe(404);
});

const FREE = [990_001, 990_002].map((n) => barcodeFor(COPY_BARCODES, n));
const row = (barcode: string) => ({
  ...{
    branch: 'MR',
    location: 'OPEN',
    scheme: 'dewey',
    prefix: '',
    class: '746.41',
    item: 'FEN',
    year: '',
    suffix: '',
  },
  ...{ type: 'BK', barcode },
});

test('a record is copied with its copies as one entry, and undone as one', async () => {
  const isbn = onlyAt('national')[2]!;
  const found = (await find(1, isbn)).records[0]!;
  const prepared = (
    await cataloguer<{ marc: MarcRecord; alike: unknown[] }>('POST', '/neighbours/prepare', {
      marc: found.marc,
    })
  ).body;
  expect(prepared.alike).toEqual([]);
  const body = {
    neighbour: 1,
    marc: prepared.marc,
    withErrors: true,
    rows: [row(FREE[0]!), row(FREE[1]!)],
  };
  const wrongBarcode = await cataloguer<{ fields: { field: string }[] }>('POST', '/neighbours/copy', {
    ...body,
    rows: [row(`${FREE[0]!.slice(0, 13)}${(Number(FREE[0]!.slice(13)) + 1) % 10}`)],
  });
  expect(wrongBarcode.status).toBe(422);
  expect(wrongBarcode.body.fields[0]!.field).toBe('rows[0].barcode');
  const copied = await cataloguer<Done & { id: number }>('POST', '/neighbours/copy', body);
  expect(copied.status).toBe(201);
  expect(copied.body.sentence).toMatch(/^Copied “.*” from National Library of the Fens with 2 copies/);
  const detail = (await cataloguer<RecordDetail>('GET', `/records/${copied.body.id}`)).body;
  expect(detail.holdings).toHaveLength(1);
  expect(detail.holdings[0]!.copies.map((c) => c.copy.barcode)).toEqual(FREE);
  expect(detail.marc.fields[0]).toEqual({ tag: '001', value: String(copied.body.id) });
  // It is here now: again it is refused until it was seen.
  expect((await lookup(isbn)).own.map((o) => o.record)).toEqual([copied.body.id]);
  const again = await cataloguer('POST', '/neighbours/copy', { ...body, rows: [] });
  expect(again.status).toBe(409);
  const undone = await cataloguer('POST', `/daybook/${copied.body.entry}/undo`, {});
  expect(undone.status).toBe(200);
  expect((await lookup(isbn)).own).toEqual([]);
  expect((await cataloguer('GET', `/records/${copied.body.id}`)).status).toBe(404);
});

test('nobody waits for an answer that nobody wants any longer', async () => {
  const { id } = await add({
    name: 'Slow and left',
    address: at('failing/slow'),
    version: '1.1',
    seconds: 20,
  });
  const { headers } = await t.ask('POST', '/sign-in/demo', { person: 2 });
  const gone = new AbortController();
  const request = fetch(`${t.running.address}/api/neighbours/${id}/find?text=eels`, {
    headers: { cookie: headers.get('set-cookie')!.split(';')[0]! },
    signal: gone.signal,
  });
  await new Promise((done) => setTimeout(done, 300));
  const open = () => new Promise<number>((done) => site.getConnections((_e, n) => done(n)));
  expect(await open()).toBeGreaterThan(0);
  gone.abort();
  await expect(request).rejects.toThrow();
  for (let i = 0; i < 100 && (await open()) > 0; i++) await new Promise((done) => setTimeout(done, 50));
  expect(await open()).toBe(0);
  // That is no fault of the source's.
  expect((await list()).find((n) => n.id === id)!.out).toBeNull();
});

test('a cover comes through the server, when it is a picture and lies outside', async () => {
  const isbn = (last: RegExp) => shelves.national.map(isbnOf).find((n) => last.test(n))!;
  const cover = (address: string, ask = cataloguer) =>
    ask('GET', `/neighbours/1/cover?address=${encodeURIComponent(address)}`);
  const shown = await cover(at(`covers/${isbn(/[^37]$/)}.png`));
  expect(shown.status).toBe(200);
  expect(shown.headers.get('content-type')).toBe('image/png');
  expect(shown.headers.get('x-content-type-options')).toBe('nosniff');
  // Not there; a web page that says it is a picture; the own network, by number and by a name that is another neighbour’s.
  expect((await cover(at(`covers/${isbn(/7$/)}.png`))).status).toBe(404);
  expect((await cover(at(`covers/${isbn(/3$/)}.png`))).status).toBe(404);
  const { port } = site.address() as AddressInfo;
  expect((await cover(`http://127.0.0.1:${port}/covers/${isbn(/[^37]$/)}.png`)).status).toBe(404);
  expect((await cover(`http://closed.example/covers/1.png`)).status).toBe(404);
  for (const address of ['file:///etc/passwd', 'javascript:alert(1)', 'covers/1.png'])
    expect((await cover(address)).status).toBe(422);
  expect((await cover(at('covers/1.png'), await t.as(3))).status).toBe(403);
  // What a record links to is what is asked for.
  const book = shelves.national.find((r) => bookFacts(r).cover !== '')!;
  expect(bookFacts(book).cover).toBe(at(`covers/${isbnOf(book)}.png`));
  expect(bookFacts(withoutCover(book)).cover).toBe('');
});
