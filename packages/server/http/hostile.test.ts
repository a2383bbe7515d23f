import { writeIso2709 } from '@osier/core/marc';
import { request } from 'node:http';
import { gzipSync } from 'node:zlib';
import { breaches } from '../testing/invariants';
import { startTesting, type Ask } from '../testing/running';
import { ENDPOINTS, type AnyEndpoint } from '@osier/contract';

/** Whatever is sent, the answer is a refusal in words or what was asked for, and never a failure inside. */
let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
let cookie: string;
let routes: AnyEndpoint[];
beforeAll(async () => {
  t = await startTesting();
  const signed = await t.ask('POST', '/sign-in/demo', { person: 1 });
  cookie = signed.headers.get('set-cookie')!.split(';')[0]!;
  head = await t.as(1);
  routes = ENDPOINTS.filter((r) => !/events$|sign-out|end-sessions|sign-in|first-head/.test(r.path));
});
afterAll(() => t.stop());
jest.setTimeout(300_000);

/** Bodies that are no objects; a part of one may be any of them. */
const SIMPLE: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1,
  1.5,
  1e300,
  -1e300,
  2 ** 53 + 2,
  '',
  ' ',
  'x',
  '\u0000',
  'a\u0000b',
  '\u001e',
  '\ud800',
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  "'; DROP TABLE records; --",
  '%',
  '_',
  '*',
  '"',
  'é'.repeat(3000),
  '{{{{',
  '245{245{245{245{245{245{245{245}}}}}}}',
  '$a{$a{$a{$a{$a}}}}',
  '(a|a)*b',
  '2026-02-31',
  '2026-13-01',
];
const NESTED: readonly unknown[] = [
  [],
  [null],
  [[]],
  [1e300],
  ['\u0000'],
  {},
  { a: 1 },
  { id: 'x' },
  { __proto__: null },
  Array.from({ length: 300 }, (_, i) => i),
];
const VALUES = [...SIMPLE, ...NESTED];
const PARAMS = [
  '0',
  '-1',
  '1',
  '99999999999999999999',
  '1e300',
  'NaN',
  'x',
  '%00',
  '%2e%2e',
  '1.5',
  '%27',
  '%E2%80%AE',
  'constructor',
  '__proto__',
];
/** Names that a query has, and one that it has not. */
const queryNames = (r: AnyEndpoint): string[] => [...Object.keys(r.query?.fields ?? {}), 'other'];
const QUERIES = [
  '',
  '%00',
  '1e300',
  '-1',
  '99999999999999999999',
  '__proto__',
  'constructor',
  'rule:x',
  "'",
  '%22',
  '%27%29',
  '245$a{',
  '245$a{$a{$a',
  '%FF%FE',
  '%ED%A0%80',
  'a'.repeat(5000),
  '#99999999999999999999',
  '5e3',
  '*',
  '(',
  '..',
  'x'.repeat(499) + '%00',
];

const pathOf = (r: AnyEndpoint, value: string) => r.path.replace(/:\w+/g, value);
const failing: string[] = [];
async function tried(what: string, ask: () => Promise<{ status: number; body: unknown }>) {
  const { status, body } = await ask().catch((e: unknown) => ({ status: 999, body: String(e) }));
  if (status >= 500) failing.push(`${what}: ${status} ${JSON.stringify(body).slice(0, 200)}`);
  if (status >= 400 && status < 500 && typeof (body as { detail?: unknown } | null)?.detail !== 'string')
    failing.push(`${what}: ${status} without a sentence`);
}

test('hostile path parameters and queries', async () => {
  let turn = 0;
  for (const r of routes.filter((x) => x.method === 'get')) {
    for (const value of r.path.includes(':') ? PARAMS : ['1'])
      await tried(`GET ${pathOf(r, value)}`, () => head('GET', pathOf(r, value)));
    // A file of all copies is read by the same names as their list, and takes long: one in four of them there.
    const isLong = r.path === '/copies/export';
    for (const name of queryNames(r).filter((_, i) => !isLong || i % 4 === 0))
      for (let n = 0; n < (name === 'other' || isLong ? 1 : 8); n++) {
        const path = `${pathOf(r, '1')}?${name}=${QUERIES[turn++ % QUERIES.length]}`;
        await tried(`GET ${path.slice(0, 100)}`, () => head('GET', path));
      }
    await tried(`GET ${r.path} twice`, () => head('GET', `${pathOf(r, '1')}?q=a&q=b&q[]=c&q[x]=d&after[]=1`));
  }
  expect(failing.splice(0)).toEqual([]);
});

const partsOf = (r: AnyEndpoint): string[] => {
  const described =
    r.body && r.body !== 'file' ? (r.body.describe() as { fields?: Record<string, unknown> }) : undefined;
  return Object.keys(described?.fields ?? {});
};

/** Bodies like a right one, of which each part in turn is hostile. */
const WHOLE: Record<string, unknown> = {
  version: 1,
  name: 'n',
  codes: ['1'],
  items: [{ copy: 1, act: 'mark-missing' }],
  copies: [1],
  kept: 1,
  lost: [2],
  a: 1,
  b: 2,
  holding: 1,
  barcode: '31204000500018',
  type: 'BK',
  record: 1,
  branch: 'MR',
  location: 'OPEN',
  class: '1',
  scheme: 'own',
  marc: {
    leader: '00000nam a2200000 i 4500',
    fields: [{ tag: '245', subfields: [{ code: 'a', value: 'x' }] }],
  },
  recipe: 'x',
  rules: [],
  leaveOut: [],
  from: 0,
  incoming: [1],
  decision: 'add',
  q: 'eel',
  into: null,
  of: 'record',
  objects: [1],
  steps: [{ step: 'sort-fields' }],
  text: '{}',
  role: 'assistant',
  login: 'new',
  password: 'a very long one 7',
  now: 'x',
  active: true,
};
test('hostile bodies', async () => {
  let seed = 7;
  let turn = 0;
  const next = (n: number) => (seed = (seed * 48271) % 2147483647) % n;
  for (const r of routes.filter((x) => x.method !== 'get')) {
    const ask = (body: unknown) =>
      tried(`${r.method} ${r.path} ${JSON.stringify(body)?.slice(0, 150)}`, () =>
        head(r.method.toUpperCase(), pathOf(r, '1'), body),
      );
    // What is no object is refused before it is known whose it is, so that each of them to some of the routes is enough.
    for (const value of NESTED) await ask(value);
    for (let n = 0; n < 6; n++) await ask(SIMPLE[turn++ % SIMPLE.length]);
    if (!r.body) continue;
    for (const name of partsOf(r))
      for (let n = 0; n < 4; n++) await ask({ ...WHOLE, [name]: VALUES[next(VALUES.length)] });
  }
  expect(failing.splice(0)).toEqual([]);
  expect(await breaches(t.running.services.store)).toEqual([]);
});

function raw(path: string, body: Uint8Array | string, headers: Record<string, string>, method = 'POST') {
  return new Promise<{ status: number; body: unknown }>((resolve, reject) => {
    const { hostname, port } = new URL(t.running.address);
    const req = request(
      { hostname, port, path: `/api${path}`, method, headers: { cookie, ...headers } },
      (res) => {
        let text = '';
        res.on('data', (d: Buffer) => (text += d.toString()));
        res.on('end', () =>
          resolve({
            status: res.statusCode!,
            body: /json/.test(res.headers['content-type'] ?? '') ? JSON.parse(text) : text,
          }),
        );
      },
    );
    req.on('error', reject);
    req.end(body);
  });
}
test('hostile encodings', async () => {
  const json = 'application/json';
  const cases: [string, Uint8Array | string, Record<string, string>][] = [
    ['not JSON', '{', { 'content-type': json }],
    ['a lone surrogate', '{"name":"\\ud800"}', { 'content-type': json }],
    ['no UTF-8', Buffer.from([0x7b, 0xff, 0xfe, 0x7d]), { 'content-type': json }],
    ['an unknown charset', '{}', { 'content-type': `${json}; charset=klingon` }],
    ['UTF-16', Buffer.from('{}', 'utf16le'), { 'content-type': `${json}; charset=utf-16le` }],
    ['an unknown encoding', '{}', { 'content-type': json, 'content-encoding': 'x-unknown' }],
    ['broken gzip', 'nonsense', { 'content-type': json, 'content-encoding': 'gzip' }],
    [
      'a gzip bomb',
      gzipSync(Buffer.alloc(50_000_000, 0x20)),
      { 'content-type': json, 'content-encoding': 'gzip' },
    ],
    ['a form', 'name=x', { 'content-type': 'application/x-www-form-urlencoded' }],
    ['deep nesting', '['.repeat(100_000) + ']'.repeat(100_000), { 'content-type': json }],
    ['a prototype', '{"__proto__":{"version":1},"constructor":{"prototype":{}}}', { 'content-type': json }],
    ['a large body', `{"codes":["${'1'.repeat(5_000_000)}"]}`, { 'content-type': json }],
    [
      '100,000 scans',
      JSON.stringify({ codes: Array.from({ length: 100_000 }, (_, i) => String(i)) }),
      { 'content-type': json },
    ],
  ];
  const paths = [
    '/piles',
    '/withdrawal-lists/1/scans',
    '/copies',
    '/headings/merge',
    '/label-rolls',
    '/recipes/import',
  ];
  for (const path of paths)
    for (const [what, body, headers] of cases) await tried(`${path} ${what}`, () => raw(path, body, headers));
  await tried('a bad percent sign', () => raw('/records/%E0%A4%A', '', {}, 'GET'));
  await tried('another name', () => raw('/today', '', { host: 'evil.example' }, 'GET'));
  expect((await raw('/today', '', { host: 'evil.example' }, 'GET')).status).toBe(421);
  expect(failing.splice(0)).toEqual([]);
});

test('files that are no deliveries are refused in words', async () => {
  let seed = 1;
  const noise = Uint8Array.from({ length: 300_000 }, () => (seed = (seed * 48271) % 2147483647) & 0xff);
  const authority = writeIso2709({
    leader: '00000nz  a2200000n  4500',
    fields: [{ tag: '100', ind1: '1', ind2: ' ', subfields: [{ code: 'a', value: 'Quill, Ada' }] }],
  });
  const cases: [Uint8Array, RegExp][] = [
    [noise, /not MARC/],
    [new Uint8Array(0), /empty/],
    [Buffer.from('<html><body>no</body></html>'), /web page/],
  ];
  for (const [file, said] of cases) {
    const { status, body } = await head<{ detail: string }>(
      'POST',
      '/deliveries?name=x',
      new Uint8Array(file),
    );
    expect([status, body.detail]).toEqual([415, expect.stringMatching(said)]);
  }
  // Authority records become no delivery: they are kept for the headings.
  const kept = await head<{ delivery: number | null; authorities: string | null }>(
    'POST',
    '/deliveries?name=x',
    new Uint8Array(authority),
  );
  expect([kept.status, kept.body.delivery, kept.body.authorities?.length]).toEqual([202, null, 64]);
  const large = await head<{ detail: string }>(
    'POST',
    '/deliveries?name=x',
    new Uint8Array(65 * 1024 * 1024),
  );
  expect([large.status, large.body.detail]).toEqual([413, expect.stringContaining('up to 64 MB')]);
});
