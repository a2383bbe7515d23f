/** @jest-environment jsdom */
import type { JobState } from '@osier/contract';
import { useJobs } from './jobs-store';
import { useScanTarget } from './scan-target';
import { useShell } from './shell-store';
import { inField } from './use-scanner';

const job = (id: number, state: JobState['state']): JobState => ({
  id,
  kind: 'read-delivery',
  title: `Job ${id}`,
  state,
  done: 1,
  total: 2,
  rate: null,
  secondsLeft: null,
  message: null,
  work: {},
  entry: null,
});

test('running jobs are kept in the order they began; one that ends is gone', () => {
  const ids = () => useJobs.getState().jobs.map((j) => j.id);
  const { hear } = useJobs.getState();
  hear(job(3, 'running'));
  hear(job(1, 'waiting'));
  hear({ ...job(3, 'running'), done: 2 });
  expect(ids()).toEqual([1, 3]);
  expect(useJobs.getState().jobs[1]!.done).toBe(2);
  hear(job(1, 'cancelled'));
  hear(job(3, 'done'));
  expect(ids()).toEqual([]);
});

test('the last act is told with its entry, a complaint without', () => {
  const { say, complain } = useShell.getState();
  say('Accepted 3 records', 12);
  expect(useShell.getState().last).toEqual({ sentence: 'Accepted 3 records', entry: 12, tone: 'done' });
  complain('The server was not reached.');
  expect(useShell.getState().last).toMatchObject({ entry: null, tone: 'problem' });
});

test('the rail stays as it was folded', () => {
  const { fold } = useShell.getState();
  const before = useShell.getState().folded;
  fold();
  expect(useShell.getState().folded).toBe(!before);
  expect(localStorage.getItem('osier-rail')).toBe(before ? 'open' : 'folded');
  fold();
  expect(useShell.getState().folded).toBe(before);
});

test('scans go to the work that waits for them', () => {
  const take = jest.fn();
  useScanTarget.getState().set(take, 'the new copy');
  useScanTarget.getState().take?.('31204000517715');
  expect(take).toHaveBeenCalledWith('31204000517715');
  expect(useScanTarget.getState().name).toBe('the new copy');
  useScanTarget.getState().set(null, null);
  expect(useScanTarget.getState().take).toBeNull();
});

test.each([
  ['<input>', true],
  ['<textarea></textarea>', true],
  ['<select></select>', true],
  ['<button>Go</button>', false],
  ['<div tabindex="0"></div>', false],
])('typing in %s is typing in a field: %p', (html, expected) => {
  document.body.innerHTML = html;
  expect(inField(document.body.firstChild)).toBe(expected);
});
test('nothing and the window are no field', () =>
  expect([inField(null), inField(window)]).toEqual([false, false]));
