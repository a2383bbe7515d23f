import type { AddressInfo } from 'node:net';
import { createServer } from 'node:net';
import { loansDesk } from '../../standins/loans-desk';
import { sip2LoansDesk, stamp } from './sip2';

const listen = async (server: ReturnType<typeof createServer>) => {
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
  return `sip2://127.0.0.1:${(server.address() as AddressInfo).port}`;
};

test('due dates of many copies on one line, and a return', async () => {
  const server = loansDesk([{ barcode: '31204000500001', due: '2026-12-24' }]);
  const desk = sip2LoansDesk(await listen(server));
  const many = Array.from({ length: 500 }, (_, i) => String(i));
  const due = (await desk.dueDates(['31204000500001', ...many]))!;
  expect(due.get('31204000500001')).toBe('2026-12-24');
  expect(many.every((b) => due.get(b) === '')).toBe(true);
  expect(await desk.takeReturn('31204000500001')).toBe(true);
  expect(await desk.takeReturn('31204000500001')).toBe(false);
  expect((await desk.dueDates(['31204000500001']))!.get('31204000500001')).toBe('');
  desk.close();
  server.close();
});

test('a desk that is not there, or hangs up, is told as silence', async () => {
  const nobody = sip2LoansDesk('sip2://127.0.0.1:1');
  expect(await nobody.dueDates(['1'])).toBeNull();
  expect(await nobody.takeReturn('1')).toBe(false);
  const rude = createServer((socket) => socket.on('data', () => socket.destroy()));
  const desk = sip2LoansDesk(await listen(rude));
  expect(await desk.dueDates(['1', '2'])).toBeNull();
  rude.close();
});

test('a desk that is reached and says nothing is told as silence when patience is at its end', async () => {
  const silent = createServer(() => undefined);
  const desk = sip2LoansDesk(await listen(silent), 50);
  expect(await desk.dueDates(['1'])).toBeNull();
  desk.close();
  silent.close();
});

test('a barcode cannot smuggle a message', async () => {
  const heard: string[] = [];
  const server = createServer((socket) =>
    socket.on('data', (d) => {
      heard.push(d.toString());
      socket.write('180300010000\r');
    }),
  );
  const desk = sip2LoansDesk(await listen(server));
  await desk.dueDates(['1|AC|\r09N']);
  expect(heard.join('').split('\r').filter(Boolean)).toHaveLength(1);
  desk.close();
  server.close();
});

// Date form of the 3M Standard Interchange Protocol 2.00: YYYYMMDDZZZZHHMMSS.
test('dates', () => expect(stamp(new Date('2026-11-23T09:08:07Z'))).toBe('20261123    090807'));
