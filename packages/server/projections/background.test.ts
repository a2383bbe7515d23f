import { pino } from 'pino';
import { changeFeed } from '../store/feed';
import type { Store } from '../store/store';
import { keepingUp } from './background';

const log = pino({ level: 'silent' });
/** A store of which only the feed is wanted. */
const storeWith = () => ({ feed: changeFeed() }) as Store;
const soon = () => new Promise((resolve) => setTimeout(resolve, 10));

afterEach(() => jest.useRealTimers());

test('work goes on until nothing is left, and begins anew after an act of its kinds', async () => {
  const store = storeWith();
  const done: number[] = [];
  let left = 3;
  const background = keepingUp(
    store,
    [{ name: 'counting', of: ['copy'], some: () => Promise.resolve((done.push(left), left--)) }],
    log,
  );
  await background.idle();
  expect(done).toEqual([3, 2, 1, 0]);
  store.feed.tell({ entry: 1, kinds: { record: [1] } });
  await background.idle();
  expect(done).toHaveLength(4);
  left = 1;
  store.feed.tell({ entry: 2, kinds: { copy: [1] } });
  await background.idle();
  expect(done).toEqual([3, 2, 1, 0, 1, 0]);
  await background.stop();
});

test('work that failed is tried again by itself, later each time', async () => {
  jest.useFakeTimers();
  const tried: number[] = [];
  const background = keepingUp(
    storeWith(),
    [
      {
        name: 'failing twice',
        of: ['copy'],
        some: () => {
          tried.push(Date.now());
          return tried.length < 3 ? Promise.reject(new Error('busy')) : Promise.resolve(0);
        },
      },
    ],
    log,
  );
  await jest.advanceTimersByTimeAsync(10_000);
  expect(tried.map((at) => at - tried[0]!)).toEqual([0, 1000, 3000]);
  await jest.advanceTimersByTimeAsync(100_000);
  expect(tried).toHaveLength(3);
  await background.stop();
});

test('what is asked for at the very end is not lost, and nothing begins after the stop', async () => {
  const store = storeWith();
  let done = 0;
  const background = keepingUp(
    store,
    [
      {
        name: 'asked again',
        of: ['copy'],
        some: () => {
          done++;
          if (done === 1) queueMicrotask(() => store.feed.tell({ entry: 1, kinds: { copy: [1] } }));
          return Promise.resolve(0);
        },
      },
    ],
    log,
  );
  await soon();
  await background.idle();
  expect(done).toBe(2);
  await background.stop();
  store.feed.tell({ entry: 2, kinds: { copy: [1] } });
  await soon();
  expect(done).toBe(2);
});
