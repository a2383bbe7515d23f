/** @jest-environment jsdom */
import type { JobState } from '@osier/contract';
import { followDrafts, unsavedWork, useDrafts } from './drafts';
import { hearJob, useJobs } from './jobs-store';
import { useScanTarget } from './scan-target';
import { useShell } from './shell-store';
import { inField, scanListener } from './use-scanner';

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
  person: 1,
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

test('the end of one’s own work is the last act; that of others stands in the panel only', () => {
  useDrafts.setState({ person: 1 });
  useShell.getState().say('Edited a record', 7);
  hearJob({ ...job(5, 'done'), person: 0, message: 'Checked 1,500 records again.' });
  hearJob({ ...job(6, 'failed'), person: 2, message: 'The disk is full.' });
  const { last, acts } = useShell.getState();
  expect(last).toMatchObject({ sentence: 'Edited a record', entry: 7 });
  expect(acts[0]!.sentence).toContain('The disk is full.');
  expect(acts[1]!.sentence).toBe('Checked 1,500 records again.');
  hearJob({ ...job(8, 'done'), message: 'Accepted 3 records', entry: 9 });
  expect(useShell.getState().last).toMatchObject({ sentence: 'Accepted 3 records', entry: 9 });
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
  ['<input type="search">', true],
  ['<input type="checkbox" value="1">', false],
  ['<input type="radio" value="508">', false],
  ['<button>Go</button>', false],
  ['<div tabindex="0"></div>', false],
])('typing in %s is typing in a field: %p', (html, expected) => {
  document.body.innerHTML = html;
  expect(inField(document.body.firstChild)).toBe(expected);
});
test('nothing and the window are no field', () =>
  expect([inField(null), inField(window)]).toEqual([false, false]));

describe('a scan while something is typed', () => {
  const CODE = '31204000500042';
  /** Types as a browser does: keydown, then the character, unless the key was taken. */
  function type(
    listen: (e: KeyboardEvent) => void,
    field: HTMLInputElement,
    keys: string,
    from: number,
    gap: number,
  ) {
    let at = from;
    let prevented = false;
    for (const key of [...keys, ...(gap < 35 ? ['Enter'] : [])]) {
      const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
      Object.defineProperty(event, 'target', { value: field });
      Object.defineProperty(event, 'timeStamp', { value: (at += gap) });
      listen(event);
      prevented = event.defaultPrevented;
      if (key.length === 1 && !prevented) {
        field.value += key;
        field.dispatchEvent(new Event('input', { bubbles: true }));
      }
    }
    return { prevented, at };
  }
  const fieldWith = (value: string, takes?: string) => {
    const field = document.createElement('input');
    field.value = value;
    if (takes) field.dataset.takesCodes = takes;
    document.body.append(field);
    return field;
  };

  test('does not stay in a text that takes no codes, and its Enter saves nothing', () => {
    const got: string[] = [];
    const listen = scanListener((c) => got.push(c));
    const field = fieldWith('');
    const { at } = type(listen, field, '127 pages : ', 0, 120);
    expect(field.value).toBe('127 pages : ');
    const { prevented } = type(listen, field, CODE, at + 200, 8);
    expect([field.value, prevented, got]).toEqual(['127 pages : ', true, [CODE]]);
  });
  test('stays in a text that takes codes, and its Enter saves nothing either', () => {
    const got: string[] = [];
    const field = fieldWith('', 'text');
    const { prevented } = type(
      scanListener((c) => got.push(c)),
      field,
      '9780306406157',
      0,
      8,
    );
    expect([field.value, prevented, got]).toEqual(['9780306406157', true, []]);
  });
  test('is left alone in a field that is there for scans', () => {
    const got: string[] = [];
    const field = fieldWith('', 'scan');
    const { prevented } = type(
      scanListener((c) => got.push(c)),
      field,
      CODE,
      0,
      8,
    );
    expect([field.value, prevented, got]).toEqual([CODE, false, []]);
  });
});

describe('what is not saved', () => {
  const marc = { leader: '00000nam a2200000 i 4500', fields: [] };
  const draft = { version: 3, base: marc, marc, title: 'Eels', path: '/catalogue/9' };
  const kept = (person: number) =>
    JSON.parse(localStorage.getItem(`osier-drafts-${person}`) ?? '{}') as { drafts: object; forms: object };
  beforeEach(() => {
    localStorage.clear();
    useDrafts.setState({ person: null, drafts: {}, forms: {} });
    useDrafts.getState().open(1);
  });

  test('outlasts the page, by person, and is gone when it is saved or discarded', () => {
    useDrafts.getState().keep('7', draft);
    expect(kept(1).drafts).toMatchObject({ 7: { version: 3, title: 'Eels' } });
    useDrafts.getState().open(2);
    expect(useDrafts.getState().drafts).toEqual({});
    useDrafts.getState().open(1);
    expect(Object.keys(useDrafts.getState().drafts)).toEqual(['7']);
    useDrafts.getState().keep('7', null);
    expect(kept(1).drafts).toEqual({});
  });

  test('is not overwritten by another page of the same browser', () => {
    useDrafts.getState().keep('7', draft);
    const theirs = {
      ...kept(1),
      forms: { house: { title: 'House rules', path: '/set-up?show=house', typed: {} } },
    };
    localStorage.setItem('osier-drafts-1', JSON.stringify(theirs));
    useDrafts.getState().keep('8', { ...draft, title: 'Bees' });
    expect(unsavedWork(useDrafts.getState()).map((w) => w.title)).toEqual(['Eels', 'Bees', 'House rules']);
  });

  test('of another page is seen here', () => {
    const stop = followDrafts();
    localStorage.setItem('osier-drafts-1', JSON.stringify({ drafts: { 9: draft }, forms: {} }));
    window.dispatchEvent(new StorageEvent('storage', { key: 'osier-drafts-1' }));
    expect(unsavedWork(useDrafts.getState())).toEqual([{ path: '/catalogue/9', title: 'Eels' }]);
    stop();
  });
});
