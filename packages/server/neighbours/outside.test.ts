import { readSruAnswer, NEW_NEIGHBOUR, USUAL_ATTRIBUTES, type Neighbour } from '@osier/core/neighbours';
import { bookFacts } from '@osier/core/neighbours';
import { cqlText, isCql, parseCql } from '@osier/core/query';
import { readIso2709 } from '@osier/core/marc';
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { connect, createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sruNeighbours } from './sru';
import { z3950Neighbours } from './yaz-client';

/** Held against the server and the client of the package yaz 5.34 (yaz-ztest, yaz-client): SRU 1.1 and 1.2, Z39.50, CQL. */
let ztest: ChildProcess;
let folder: string;
let port: number;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-ztest-'));
  port = await new Promise<number>((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = probe.address() as AddressInfo;
      probe.close(() => done(free));
    });
  });
  ztest = spawn('yaz-ztest', [`tcp:127.0.0.1:${port}`], { cwd: folder, stdio: 'ignore' });
  for (let i = 0; i < 200; i++) {
    const isUp = await new Promise<boolean>((done) => {
      const socket = connect(port, '127.0.0.1', () => done(true)).on('error', () => done(false));
      socket.once('connect', () => socket.destroy());
    });
    if (isUp) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error('yaz-ztest did not start.');
});
afterAll(() => {
  ztest.kill();
  rmSync(folder, { recursive: true });
});

const hosts = () => new Map([['ztest.example', { host: '127.0.0.1', port }]]);
const asked = (parts: Partial<Neighbour>) => ({
  neighbour: { ...NEW_NEIGHBOUR, name: 'T', ...parts },
  password: '',
});
const never = new AbortController().signal;
const words = { by: 'words', title: 'computer', name: '' } as const;

test.each(['1.1', '1.2'] as const)('its server is asked by SRU %s and read', async (version) => {
  const answer = await sruNeighbours(hosts()).search(
    asked({ address: 'http://ztest.example/Default', version, most: 3 }),
    words,
    never,
  );
  const read = readSruAnswer(answer.bytes);
  expect(read).toMatchObject({ problem: null, diagnostics: [], told: [] });
  expect(read.count).toBeGreaterThan(0);
  expect(read.records.length).toBe(Math.min(3, read.count!));
  expect(bookFacts(read.records[0]!.record!).title).toBe('How to program a computer');
});

test('its server is asked by Z39.50 through its client', async () => {
  const z = z3950Neighbours(hosts());
  const there = {
    protocol: 'z39.50',
    address: 'ztest.example:210',
    database: 'Default',
    indexes: USUAL_ATTRIBUTES,
    most: 2,
  } as const;
  const answer = await z.search(asked(there), words, never);
  expect(answer.count).toBeGreaterThan(0);
  const read = readIso2709(answer.bytes);
  expect(read).toHaveLength(Math.min(2, answer.count!));
  expect(bookFacts(read[0]!.record!).title).toBe('How to program a computer');
  // What is typed is a term and never a command.
  const hostile = { by: 'words', title: 'a"\nquit\nshell touch hacked\n"b', name: '' } as const;
  await expect(z.search(asked(there), hostile, never)).resolves.toMatchObject({ format: 'iso2709' });
  await expect(z.search(asked({ ...there, database: 'nosuchdatabase' }), words, never)).rejects.toMatchObject(
    { kind: 'faulty' },
  );
  await expect(
    z3950Neighbours(new Map()).search(asked({ ...there, address: '127.0.0.1:210' }), words, never),
  ).rejects.toMatchObject({ kind: 'own network' });
  await expect(
    z3950Neighbours(new Map([['closed.example', { host: '127.0.0.1', port: 1 }]])).search(
      asked({ ...there, address: 'closed.example:210' }),
      words,
      never,
    ),
  ).rejects.toMatchObject({ kind: 'down' });
});

test('the sign-on goes along with Z39.50 as it was typed, or is refused', async () => {
  const sent: Buffer[] = [];
  const listening = createServer((socket) =>
    socket.on('data', (data) => {
      sent.push(data);
      socket.destroy();
    }),
  );
  await new Promise<void>((done) => listening.listen(0, '127.0.0.1', done));
  const { port: at } = listening.address() as AddressInfo;
  const z = z3950Neighbours(new Map([['locked.example', { host: '127.0.0.1', port: at }]]));
  const there = asked({
    protocol: 'z39.50',
    address: 'locked.example:210',
    indexes: USUAL_ATTRIBUTES,
    user: 'desk',
  });
  await expect(z.search({ ...there, password: 'wi$hies-12' }, words, never)).rejects.toMatchObject({
    kind: 'down',
  });
  // An init request has them as they are (Z39.50, IdAuthentication, idPass).
  const init = Buffer.concat(sent).toString('latin1');
  expect(init).toContain('desk');
  expect(init).toContain('wi$hies-12');
  sent.length = 0;
  for (const password of ['two words', 'a"b', 'a\\b', 'a\nquit'])
    await expect(z.search({ ...there, password }, words, never)).rejects.toMatchObject({ kind: 'refused' });
  expect(sent).toHaveLength(0);
  listening.close();
});

/** What makes prefix notation of the indexes of the queries below. */
const PROPERTIES = `set.cql = info:srw/cql-context-set/1/cql-v1.1
set.dc = info:srw/cql-context-set/1/dc-v1.1
set.bath = http://zing.z3950.org/cql/bath/2.0/
set = info:srw/cql-context-set/1/dc-v1.1
index.cql.serverChoice = 1=1016
index.cql.anywhere = 1=1016
index.dc.title = 1=4
index.dc.creator = 1=1003
index.bath.isbn = 1=7
relation.< = 2=1
relation.le = 2=2
relation.eq = 2=3
relation.exact = 2=3
relation.ge = 2=4
relation.> = 2=5
relation.<> = 2=6
relation.= = 2=3
relation.scr = 2=3
relation.all = 2=3
relation.any = 2=3
structure.* = 4=1
position.first = 3=1 6=1
position.any = 3=3 6=1
position.last = 3=3 6=1
position.firstAndLast = 3=1 6=3
truncation.none = 5=100
truncation.both = 5=3
truncation.left = 5=2
truncation.right = 5=1
`;

/** Left out: words beside each other, which its reader takes as one term, and a quotation that is not closed, which it closes. The grammar has neither. */
const QUERIES = [
  'eels',
  '"eels of osmere"',
  'dc.title = eels',
  'dc.title all "eels osmere" and dc.creator all "fenn"',
  'bath.isbn = "9780306406157" or bath.isbn = "0306406152"',
  '(eels or pout) and not_a_word',
  'eels not pout',
  'eels and (pout or (lamprey and elver))',
  'eels and',
  '(eels',
  'eels)',
  'dc.title =',
  'dc.title = "a \\"b\\" c"',
  '()',
  'a or "and"',
  'dc.title = "not" or b',
  '((a))',
  '(a or b',
  'a or (b and)',
];

test('queries are taken and refused as its reader of CQL does', () => {
  const properties = join(folder, 'cql.properties');
  writeFileSync(properties, PROPERTIES);
  const refuses = (query: string): boolean => {
    const input = `querytype cql2rpn\nopen 127.0.0.1:${port}/Default\nfind ${query}\nquit\n`;
    const said = execFileSync('yaz-client', ['-q', properties], { input, encoding: 'utf8', cwd: folder });
    if (!/Number of hits|[Ss]yntax|[Ee]rror/.test(said)) throw new Error(`${query}: ${said}`);
    return !/Number of hits/.test(said);
  };
  for (const query of QUERIES) {
    const read = parseCql(query);
    expect([query, !isCql(read)]).toEqual([query, refuses(query)]);
    // What is written anew is taken as well.
    if (isCql(read)) expect([cqlText(read), refuses(cqlText(read))]).toEqual([cqlText(read), false]);
  }
});
