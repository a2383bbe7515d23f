/** @jest-environment jsdom */
import { useAsking } from './asking-store';

interface Wait {
  readonly path: string;
  readonly signal: AbortSignal;
  answer(state: string, records?: number): void;
}
let waits: Wait[];
const asked = () => waits.map((w) => w.path);
const settled = () => new Promise((done) => setTimeout(done));

beforeEach(() => {
  waits = [];
  useAsking.getState().clear();
  global.fetch = jest.fn((path: string, { signal }: { signal: AbortSignal }) => {
    return new Promise((resolve, reject) => {
      signal.addEventListener('abort', () => reject(new Error('aborted')));
      waits.push({
        path,
        signal,
        answer: (state, records = 0) =>
          resolve({
            ok: true,
            status: 200,
            headers: { get: () => 'application/json' },
            text: () =>
              Promise.resolve(
                JSON.stringify({
                  state,
                  message: '',
                  told: [],
                  count: records,
                  milliseconds: 1,
                  records: Array.from({ length: records }, () => ({})),
                }),
              ),
          }),
      });
    });
  }) as unknown as typeof fetch;
});

test('in turn: the next is asked when one has nothing, and nobody after one that has it', async () => {
  const { begin } = useAsking.getState();
  begin('978', [[4], [5], [6]]);
  expect(asked()).toEqual(['/api/neighbours/4/find?text=978']);
  expect(useAsking.getState().answers).toEqual({ 4: 'asking' });
  waits[0]!.answer('none');
  await settled();
  expect(asked()).toHaveLength(2);
  waits[1]!.answer('found', 1);
  await settled();
  expect(asked()).toHaveLength(2);
  // Looking further asks those that were not asked.
  useAsking.getState().further([4, 5, 6]);
  expect(asked()[2]).toBe('/api/neighbours/6/find?text=978');
});

test('in rounds: those of one round together, the next round when none of them has it', async () => {
  useAsking.getState().begin('978', [[1, 2], [3], [4]]);
  expect(asked()).toEqual(['/api/neighbours/1/find?text=978', '/api/neighbours/2/find?text=978']);
  waits[0]!.answer('none');
  await settled();
  expect(asked()).toHaveLength(2);
  waits[1]!.answer('failed');
  await settled();
  expect(asked()[2]).toContain('/3/');
  waits[2]!.answer('found', 1);
  await settled();
  expect(asked()).toHaveLength(3);
});

test('all at once: three at a time, and one that is slow holds up nobody', async () => {
  useAsking.getState().begin('eels', [[1, 2, 3, 4]]);
  expect(asked()).toHaveLength(3);
  waits[2]!.answer('failed');
  await settled();
  expect(asked()[3]).toContain('/4/');
  expect(useAsking.getState().answers[3]).toMatchObject({ state: 'failed' });
});

test('another search ends the one before: its answers come to nothing', async () => {
  useAsking.getState().begin('one', [[1], [2]]);
  useAsking.getState().begin('two', [[1], [2]]);
  expect(waits[0]!.signal.aborted).toBe(true);
  await settled();
  expect(asked()).toHaveLength(2);
  expect(useAsking.getState().answers).toEqual({ 1: 'asking' });
  waits[1]!.answer('found', 1);
  await settled();
  expect(useAsking.getState()).toMatchObject({ text: 'two', answers: { 1: { state: 'found' } } });
  useAsking.getState().stop();
  expect(useAsking.getState().answers[1]).toMatchObject({ state: 'found' });
});

test('one that was put aside is remembered for this search only', () => {
  const { choose, reject, begin } = useAsking.getState();
  choose('1 0');
  reject('1 0');
  expect(useAsking.getState()).toMatchObject({ chosen: null, rejected: ['1 0'] });
  begin('next', []);
  expect(useAsking.getState().rejected).toEqual([]);
});
