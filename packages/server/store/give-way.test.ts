import { setImmediate as nextTurn, setTimeout as sleep } from 'node:timers/promises';
import { withChanges } from './feed';
import { ANSWERING, giveWay, goesFirst } from './give-way';
import { Patience, sleepWhileAsked } from './patience';

const never = new Promise<void>(() => undefined);

test('long work goes on when what was asked meanwhile has been answered', async () => {
  await sleep(150);
  const order: string[] = [];
  const asked = goesFirst(async () => {
    await nextTurn();
    order.push('answer');
  });
  await giveWay();
  order.push('work');
  await asked;
  expect(order).toEqual(['answer', 'work']);
  expect(ANSWERING[0]).toBe(0);
});

test('a request that fails is no longer waited for', async () => {
  await expect(goesFirst(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
  expect(ANSWERING[0]).toBe(0);
});

test('the work of a request does not wait, for itself or for others; other work does, and goes on in the end', async () => {
  void goesFirst(() => never);
  let went = 0;
  await withChanges(async () => {
    void giveWay().then(() => went++);
    await Promise.resolve();
  });
  expect(went).toBe(1);
  await sleep(20);
  const own = giveWay().then(() => went++);
  await Promise.resolve();
  expect(went).toBe(1);
  await own;
  expect(went).toBe(2);
  ANSWERING[0] = 0;
});

test('patience grows with work, is spent by waiting, and is never long', () => {
  let at = 0;
  const patience = new Patience(() => at);
  expect(patience.left()).toBe(0);
  at = 30;
  expect(patience.left()).toBe(30);
  at = 40;
  patience.waited(10);
  expect(patience.left()).toBe(20);
  at = 1000;
  expect(patience.left()).toBe(100);
  at = 1100;
  patience.waited(100);
  expect(patience.left()).toBe(0);
  at = 1105;
  expect(patience.left()).toBe(5);
});

test('a thread sleeps while somebody asks, as long as its patience lasts', () => {
  let at = 30;
  const wait = jest.spyOn(Atomics, 'wait').mockImplementation((_, __, ___, most) => {
    at += most!;
    return 'timed-out';
  });
  const asked = new Int32Array(new SharedArrayBuffer(4));
  const patience = new Patience(() => at);
  at = 60;
  sleepWhileAsked(asked, patience);
  expect(wait).not.toHaveBeenCalled();
  asked[0] = 2;
  sleepWhileAsked(asked, patience);
  expect(wait).toHaveBeenCalledTimes(1);
  expect(wait).toHaveBeenCalledWith(asked, 0, 2, 30);
  wait.mockRestore();
});
