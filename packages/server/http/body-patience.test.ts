import express from 'express';
import { once } from 'node:events';
import { connect, type AddressInfo, type Server, type Socket } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { bodyPatience } from './body-patience';

const SILENCE = 300;
let server: Server;
let reached: string[];
beforeAll(async () => {
  const app = express();
  app.use(bodyPatience(SILENCE));
  app.use(express.text());
  app.post('/', (req, res) => {
    reached.push(String(req.body));
    res.send('taken');
  });
  app.get('/slow', (_req, res) => void setTimeout(() => res.send('at last'), 4 * SILENCE));
  server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
});
beforeEach(() => (reached = []));
afterAll(() => server.close());

/** Opens a request and gives its socket, with everything that comes back once the other side has ended it. */
function asked(head: string): { socket: Socket; answer: Promise<string> } {
  const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
  socket.on('error', () => undefined);
  let text = '';
  socket.on('data', (part: Buffer) => (text += part.toString()));
  socket.write(`${head}\r\nHost: localhost\r\nConnection: close\r\nContent-Type: text/plain\r\n`);
  return { socket, answer: once(socket, 'close').then(() => text) };
}

test('a body that drips for longer than the silence is taken whole', async () => {
  const { socket, answer } = asked('POST / HTTP/1.1');
  socket.write('Content-Length: 10\r\n\r\n');
  for (let i = 0; i < 10; i++) {
    await wait(SILENCE / 4);
    socket.write(String(i));
  }
  expect(await answer).toMatch(/^HTTP\/1\.1 200 [\s\S]*taken$/);
  expect(reached).toEqual(['0123456789']);
});

test('a body that stops coming is ended and reaches nobody', async () => {
  const { socket, answer } = asked('POST / HTTP/1.1');
  socket.write('Content-Length: 10\r\n\r\n01234');
  expect(await answer).toMatch(
    /^HTTP\/1\.1 408 [\s\S]*Nothing came for 0 seconds, so that the request was ended/,
  );
  expect(reached).toEqual([]);
});

test('an answer may take longer than the silence when nothing more is to come', async () => {
  const { socket, answer } = asked('GET /slow HTTP/1.1');
  socket.write('\r\n');
  expect(await answer).toMatch(/at last$/);
});
