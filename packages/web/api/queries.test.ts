/** @jest-environment jsdom */
import { api } from '@osier/contract';
import { calm, refreshAll, queries, setRead } from './queries';

afterEach(() => {
  jest.useRealTimers();
  queries.clear();
});

test('what costs much is read again after its pause, once for all changes meanwhile; everything else at once', async () => {
  jest.useFakeTimers();
  const reads: string[] = [];
  const keep = (key: string, pause: number) => {
    queries.setQueryData([key], 'read');
    calm(key, pause);
  };
  keep('/withdrawal-lists/1', 5000);
  keep('/withdrawal-lists/2', 0);
  const spy = jest.spyOn(queries, 'invalidateQueries').mockImplementation((filters) => {
    for (const q of queries.getQueryCache().findAll(filters)) reads.push(String(q.queryKey[0]));
    return Promise.resolve();
  });
  await refreshAll();
  await refreshAll();
  expect(reads).toEqual(['/withdrawal-lists/2', '/withdrawal-lists/2']);
  jest.advanceTimersByTime(4999);
  expect(reads).toHaveLength(2);
  jest.advanceTimersByTime(1);
  expect(reads.slice(2)).toEqual(['/withdrawal-lists/1']);
  await refreshAll();
  jest.advanceTimersByTime(5000);
  expect(reads.slice(2)).toEqual(['/withdrawal-lists/1', '/withdrawal-lists/2', '/withdrawal-lists/1']);
  spy.mockRestore();
  calm('/withdrawal-lists/1', 0);
});

test('what was read is changed until it is read again; what was not read is not made up', () => {
  queries.setQueryData(['/piles'], []);
  setRead(api.piles.list, {}, (piles) => [...piles, ...piles]);
  setRead(api.withdrawals.lists, {}, (lists) => lists);
  expect(queries.getQueryData(['/piles'])).toEqual([]);
  expect(queries.getQueryData(['/withdrawal-lists'])).toBeUndefined();
});
