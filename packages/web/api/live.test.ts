/** @jest-environment jsdom */
import { followLive } from './live';
import { queries } from './queries';

/** An event stream in the hands of a test. */
class Stream {
  static all: Stream[] = [];
  static readonly CLOSED = 2;
  readyState = 1;
  onmessage?: (message: { data: string }) => void;
  onopen?: () => void;
  onerror?: () => void;
  constructor(readonly url: string) {
    Stream.all.push(this);
  }
  close() {
    this.readyState = Stream.CLOSED;
  }
}

let reads: jest.SpyInstance;
beforeEach(() => {
  jest.useFakeTimers();
  Stream.all = [];
  Object.assign(globalThis, { EventSource: Stream });
  reads = jest.spyOn(queries, 'invalidateQueries').mockResolvedValue();
});
afterEach(() => {
  jest.useRealTimers();
  reads.mockRestore();
});
const hidden = (state: 'hidden' | 'visible') => {
  Object.defineProperty(document, 'visibilityState', { configurable: true, value: state });
  document.dispatchEvent(new Event('visibilitychange'));
};

test('messages are heard; a stream that broke and opens again has everything on screen read again', () => {
  const heard: unknown[] = [];
  const began = jest.fn();
  const stop = followLive('/live/events', (m) => heard.push(m), began);
  const [stream] = Stream.all;
  stream!.onopen?.();
  stream!.onmessage?.({ data: '{"a":1}' });
  expect([stream!.url, heard, reads.mock.calls.length, began.mock.calls.length]).toEqual([
    ...['/api/live/events', [{ a: 1 }], 0, 1],
  ]);
  stream!.onerror?.();
  stream!.onopen?.();
  expect([reads.mock.calls.length, began.mock.calls.length]).toEqual([1, 2]);
  stop();
});

test('a stream that the browser gave up is asked for again; after the stop nothing is', () => {
  const stop = followLive('/live/events', () => undefined);
  const [first] = Stream.all;
  first!.readyState = Stream.CLOSED;
  first!.onerror?.();
  expect(Stream.all).toHaveLength(1);
  jest.advanceTimersByTime(3000);
  expect(Stream.all).toHaveLength(2);
  Stream.all[1]!.onopen?.();
  expect(reads).toHaveBeenCalledTimes(1);
  Stream.all[1]!.readyState = Stream.CLOSED;
  Stream.all[1]!.onerror?.();
  stop();
  jest.advanceTimersByTime(60_000);
  expect(Stream.all).toHaveLength(2);
});

test('a tab in the background gives its stream up, and reads again when it comes back', () => {
  const stop = followLive('/live/events', () => undefined);
  hidden('hidden');
  expect(Stream.all[0]!.readyState).toBe(Stream.CLOSED);
  hidden('visible');
  expect([Stream.all.length, reads.mock.calls.length]).toEqual([2, 1]);
  stop();
});
