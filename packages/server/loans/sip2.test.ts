import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { loansDesk } from '../../standins/loans-desk';
import { sip2LoansDesk } from './sip2';
import { checksum, sealed, stamp } from './sip2-message';

// Messages, fields, circulation statuses, AY/AZ: 3M Standard Interchange Protocol 2.00.

const CODE = '31204000500001';
const servers: Server[] = [];
const desks: { close(): void }[] = [];
afterEach(() => {
  for (const d of desks.splice(0)) d.close();
  for (const s of servers.splice(0)) s.close();
});
async function deskAt(server: Server, patience = 400, user = ''): Promise<ReturnType<typeof sip2LoansDesk>> {
  servers.push(server);
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
  const desk = sip2LoansDesk(`sip2://${user}127.0.0.1:${(server.address() as AddressInfo).port}`, patience);
  desks.push(desk);
  return desk;
}
/** A desk that answers each line as told; undefined sends nothing. */
const answering = (answer: (line: string, socket: Socket) => string | undefined): Server =>
  createServer((socket) => {
    socket.on('error', () => undefined);
    socket.on('data', (d) => {
      for (const line of d.toString().split('\r').filter(Boolean)) {
        const said = answer(line, socket);
        if (said !== undefined) socket.write(said);
      }
    });
  });
const item = (status: string, barcode: string, more = '') =>
  `18${status}000120261127    101500${more}AB${barcode}|AJ|`;
const codeIn = (line: string) => /AB([^|]*)\|/.exec(line)![1]!;
const sequenceIn = (line: string) => Number(/AY(\d)AZ/.exec(line)![1]);

test('many copies at once, a few questions at a time', async () => {
  let open = 0;
  let most = 0;
  const server = answering((line, socket) => {
    most = Math.max(most, ++open);
    setTimeout(() => {
      open--;
      socket.write(`${item(codeIn(line) === CODE ? '04' : '03', codeIn(line), 'AH2026-12-24|')}\r`);
    }, 1);
    return undefined;
  });
  const desk = await deskAt(server, 4000);
  const many = Array.from({ length: 300 }, (_, i) => String(i));
  const said = await desk.ask([CODE, ...many]);
  expect(said.of(CODE)).toEqual({ state: 'on loan', due: '2026-12-24' });
  expect(many.every((b) => said.of(b).state === 'available')).toBe(true);
  expect(most).toBeLessThanOrEqual(4);
});

test.each([
  ['01', 'not known'],
  ['02', 'on order'],
  ['03', 'available'],
  ['04', 'on loan'],
  ['05', 'on loan'],
  ['06', 'in process'],
  ['07', 'on loan'],
  ['08', 'on the hold shelf'],
  ['09', 'to be re-shelved'],
  ['10', 'in transit'],
  ['11', 'claimed returned'],
  ['12', 'lost'],
  ['13', 'missing'],
  ['14', 'not known'],
  ['99', 'not known'],
])('circulation status %s is %s', async (status, state) => {
  const desk = await deskAt(loansDesk([], { [CODE]: status }));
  expect((await desk.ask([CODE])).of(CODE).state).toBe(state);
});

test.each<[string, (line: string) => string | undefined]>([
  ['garbage', () => 'asdf\r'],
  ['a request to send again', () => '96\r'],
  ['a page of HTML', () => 'HTTP/1.1 400 Bad Request\r\n\r\n<html></html>\r'],
  ['an echo', (l) => `${l}\r`],
  ['nothing', () => undefined],
  ['another copy', () => `${item('03', '31204000599999')}\r`],
  ['no copy', () => '180300012026112701    101500AJ|\r'],
  ['a fixed part that is too short', (l) => `1803AB${codeIn(l)}|\r`],
  ['a field without its end', (l) => `${item('03', codeIn(l)).slice(0, -1)}\r`],
  ['a wrong checksum', (l) => `${item('03', codeIn(l))}AY${sequenceIn(l)}AZ0000\r`],
  ['the number of another question', (l) => `${sealed(item('03', codeIn(l)), (sequenceIn(l) + 1) % 10)}\r`],
  ['a message without an end', () => 'x'.repeat(100_000)],
])('a desk that sends %s is not known', async (_, answer) => {
  const desk = await deskAt(answering(answer), 150);
  const said = await desk.ask([CODE]);
  expect(said.of(CODE).state).toBe('not known');
  expect(said.heard).toBe(false);
});

test('a greeting shifts nothing: each answer belongs to the copy that it names', async () => {
  const server = createServer((socket) => {
    socket.write('Welcome to the loans desk\r');
    socket.on('data', (d) => {
      for (const line of d.toString().split('\r').filter(Boolean))
        socket.write(`${item(codeIn(line) === '1' ? '04' : '03', codeIn(line))}\r`);
    });
  });
  const said = await (await deskAt(server)).ask(['1', '2', '3']);
  expect(['1', '2', '3'].map((b) => said.of(b).state)).toEqual(['on loan', 'available', 'available']);
});

test('a desk that drips bytes has the same time as a silent one', async () => {
  const timers: NodeJS.Timeout[] = [];
  const server = answering((_, socket) => {
    timers.push(setInterval(() => socket.write('1'), 20));
    return undefined;
  });
  const desk = await deskAt(server, 200);
  const began = Date.now();
  expect((await desk.ask([CODE, '2'])).heard).toBe(false);
  expect(Date.now() - began).toBeLessThan(2000);
  timers.forEach(clearInterval);
});

test('a late answer meets no later question', async () => {
  let first = true;
  const server = answering((line, socket) => {
    if (!first) return `${item('04', codeIn(line))}\r`;
    first = false;
    setTimeout(() => socket.write(`${item('03', codeIn(line))}\r`), 300);
    return undefined;
  });
  const desk = await deskAt(server, 100);
  expect((await desk.ask([CODE])).of(CODE).state).toBe('not known');
  await new Promise((r) => setTimeout(r, 300));
  expect((await desk.ask([CODE])).of(CODE).state).toBe('on loan');
});

test('a desk that is not there, or hangs up, is told as silence', async () => {
  const nobody = sip2LoansDesk('sip2://127.0.0.1:1');
  expect((await nobody.ask(['1'])).heard).toBe(false);
  expect(await nobody.reachable()).toBe(false);
  const desk = await deskAt(answering((_, socket) => void socket.destroy()));
  expect((await desk.ask(['1', '2'])).of('2').state).toBe('not known');
});

test('an answer is remembered for a while, but not for what is asked anew', async () => {
  let status = '03';
  const desk = await deskAt(answering((line) => `${item(status, codeIn(line))}\r`));
  expect((await desk.ask([CODE])).of(CODE).state).toBe('available');
  status = '04';
  expect((await desk.ask([CODE])).of(CODE).state).toBe('available');
  expect((await desk.ask([CODE], { anew: true })).of(CODE).state).toBe('on loan');
});

test('a copy is checked in with the day on which it was found; the desk says whether it took it', async () => {
  const heard: string[] = [];
  const server = answering((line) => {
    heard.push(line);
    return `10${codeIn(line) === CODE ? 1 : 0}YNN20261127    101500AO|AB${codeIn(line)}|AQ|\r`;
  });
  const said = await (
    await deskAt(server)
  ).tell(
    new Map([
      [CODE, { returnedOn: '2026-11-20' }],
      ['2', { returnedOn: '2026-11-20' }],
    ]),
  );
  expect([...said]).toEqual([
    [CODE, true],
    ['2', false],
  ]);
  expect(heard[0]).toMatch(
    /^09N\d{8} {4}\d{6}20261120 {4}000000AP\|AO\|AB31204000500001\|AC\|AY1AZ[0-9A-F]{4}$/,
  );
});

test('what a reader is charged for a copy is told with its currency; nothing is no charge', async () => {
  const desk = await deskAt(
    answering((l) => `${item('12', codeIn(l), codeIn(l) === CODE ? 'BHGBP|BV18.00|' : 'BV0.00|')}\r`),
  );
  const said = await desk.ask([CODE, '2']);
  expect(said.of(CODE)).toEqual({ state: 'lost', due: '', charge: '18.00 GBP' });
  expect(said.of('2')).toEqual({ state: 'lost', due: '' });
});

test('logs in where a name is set; a desk that refuses is not known', async () => {
  const heard: string[] = [];
  const desk = (let_in: string) =>
    answering((line) => {
      heard.push(line);
      return line.startsWith('93') ? `94${let_in}\r` : `${item('03', codeIn(line))}\r`;
    });
  expect((await (await deskAt(desk('1'), 400, 'osier:se%7Ccret@')).ask([CODE])).of(CODE).state).toBe(
    'available',
  );
  expect(heard[0]).toContain('9300CNosier|COsecret|');
  expect((await (await deskAt(desk('0'), 400, 'osier:x@')).ask([CODE])).heard).toBe(false);
});

test('a barcode cannot smuggle a message', async () => {
  const heard: string[] = [];
  const server = answering((line) => {
    heard.push(line);
    return `${item('03', codeIn(line))}\r`;
  });
  const said = await (await deskAt(server)).ask(['1|AC|\r09N']);
  expect(said.of('1|AC|\r09N').state).toBe('not known');
  expect(heard).toEqual([]);
});

test('checksums and dates', () => {
  // Example of the protocol text, appendix on error detection: the sum and the checksum add up to nought.
  const message = '9900302.00AY1AZ';
  const sum = [...message].reduce((n, c) => n + c.charCodeAt(0), 0);
  expect((sum + parseInt(checksum(message), 16)) & 0xffff).toBe(0);
  expect(checksum(message)).toBe('FCA5');
  expect(stamp(new Date(2026, 10, 23, 9, 8, 7))).toBe('20261123    090807');
});
