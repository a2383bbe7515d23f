/** @jest-environment jsdom */
import type { Review, ReviewRow } from '@osier/contract';
import { field } from '@osier/core/marc';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { RequestProblem } from '../api/request';
import { ReviewSheet } from './ReviewSheet';
import { loadFormat } from './format';

// The names of fields are there when they are drawn.
beforeAll(loadFormat);

afterEach(() => {
  cleanup();
  // What was left out is kept with its review.
  sessionStorage.clear();
  localStorage.clear();
});
const row = (id: number, exception: string | null = null): ReviewRow => ({
  id,
  label: `Record ${id}`,
  detail: `number ${id}`,
  exception,
  before: null,
  after: { marc: { leader: '00000nam a2200000 i 4500', fields: [field('245', '00', 'a', `Title ${id}`)] } },
  canLeaveOut: true,
});
const review = (rows: ReviewRow[], count = rows.length, more = 0): Review => ({
  sentence: `${count} records will be added.`,
  verb: 'Accept',
  noun: { one: 'record', many: 'records' },
  count,
  consequences: ['No copies come with these records; only titles are added.'],
  rows,
  more,
  token: `1.${rows.length}`,
});
const shown = (props: Partial<Parameters<typeof ReviewSheet>[0]>) => {
  const onDo = jest.fn(() => Promise.resolve());
  const onClose = jest.fn();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ReviewSheet title="Accept" review={review([row(1)])} onClose={onClose} onDo={onDo} {...props} />
    </QueryClientProvider>,
  );
  return { onDo, onClose };
};
const act = () => screen.getByRole('button', { name: /^(Accept|…)/ });
const press = () => fireEvent.keyDown(window, { key: 'Enter', ctrlKey: true });

test('one sentence, consequences, exceptions before the rest, one button with verb and number', () => {
  shown({ review: review([row(1), row(2, 'Replaces record 7.'), row(3)]) });
  expect(screen.getByText('3 records will be added.')).toBeTruthy();
  expect(screen.getByText(/only titles are added/)).toBeTruthy();
  const groups = [...document.querySelectorAll('details.review-rows')];
  expect(groups.map((g) => g.querySelector('summary')!.textContent)).toEqual([
    'Look at these first (1)',
    'The rest (2)',
  ]);
  expect(within(groups[0] as HTMLElement).getByText('Replaces record 7.')).toBeTruthy();
  expect(act().textContent).toContain('Accept 3 records');
});

test('more than ten of the rest are folded where there are exceptions', () => {
  shown({ review: review([row(0, 'Look.'), ...Array.from({ length: 11 }, (_, i) => row(i + 1))]) });
  const open = [...document.querySelectorAll<HTMLDetailsElement>('details.review-rows')].map((d) => d.open);
  expect(open).toEqual([true, false]);
});

test('what is left out is not done, and the number says so', async () => {
  const { onDo, onClose } = shown({ review: review([row(1), row(2), row(3)]) });
  fireEvent.click(screen.getByRole('checkbox', { name: 'Record 2' }));
  expect(act().textContent).toContain('Accept 2 records');
  press();
  await waitFor(() => expect(onClose).toHaveBeenCalled());
  expect(onDo).toHaveBeenCalledWith([2], expect.anything());
});

test('with everything left out there is nothing to do', () => {
  const { onDo } = shown({ review: review([row(1)]) });
  fireEvent.click(screen.getByRole('checkbox', { name: 'Record 1' }));
  expect(act()).toHaveProperty('disabled', true);
  press();
  expect(onDo).not.toHaveBeenCalled();
});

test('further pages are asked for from where the rows end, and their rows can be left out', async () => {
  const onMore = jest
    .fn<Promise<Review>, [number]>()
    .mockResolvedValueOnce(review([row(3), row(4)], 5, 1))
    .mockResolvedValueOnce(review([row(5)], 5, 0));
  const { onDo } = shown({ review: review([row(1), row(2)], 5, 3), onMore });
  fireEvent.click(screen.getByRole('button', { name: 'Show the next 2' }));
  await screen.findByText('Record 4');
  expect(screen.getByText('And 1 more.')).toBeTruthy();
  // The button is busy until its rows are there.
  fireEvent.click(await screen.findByRole('button', { name: 'Show the next 1' }));
  await screen.findByText('Record 5');
  expect(screen.queryByText(/more\.$/)).toBeNull();
  expect(onMore.mock.calls).toEqual([[2], [4]]);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Record 5' }));
  expect(act().textContent).toContain('Accept 4 records');
  press();
  await waitFor(() => expect(onDo).toHaveBeenCalledWith([5], expect.anything()));
});

test('where there is no way to further rows, their number is told all the same', () => {
  shown({ review: review([row(1)], 1300, 1299) });
  expect(screen.getByText('And 1,299 more.')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Show the next/ })).toBeNull();
});

test('a page that cannot be had is told, and what is there stays', async () => {
  shown({
    review: review([row(1)], 2, 1),
    onMore: () => Promise.reject(new Error('The server was not reached.')),
  });
  fireEvent.click(screen.getByRole('button', { name: 'Show the next 1' }));
  await screen.findByText('The server was not reached.');
  expect(screen.getByText('Record 1')).toBeTruthy();
});

test('what cannot be done says why; the sheet stays open when it fails', async () => {
  const failing = shown({ onDo: () => Promise.reject(new Error('Someone has changed record 1.')) });
  press();
  await screen.findByText('Someone has changed record 1.');
  expect(failing.onClose).not.toHaveBeenCalled();
  cleanup();
  const { onDo } = shown({ canDo: false, whyNot: 'Only the head withdraws.' });
  expect(screen.getByText('Only the head withdraws.')).toBeTruthy();
  press();
  expect(onDo).not.toHaveBeenCalled();
});

test('the act is done once, however often the key is pressed', async () => {
  let end: () => void = () => undefined;
  const onDo = jest.fn(() => new Promise<void>((done) => (end = done)));
  const { onClose } = shown({ onDo });
  press();
  press();
  press();
  expect(onDo).toHaveBeenCalledTimes(1);
  end();
  await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
});

test('until the review is worked out there is no number to promise', () => {
  shown({ review: undefined });
  expect(screen.getByText('Working out what would change…')).toBeTruthy();
  expect(act()).toHaveProperty('disabled', true);
});

test('an act that is refused because something has changed shows the review anew, with the difference marked', async () => {
  const refused = new RequestProblem({
    type: 'about:blank',
    title: 'Changed since',
    status: 409,
    detail: 'Something has changed since this was reviewed.',
  });
  const onDo = jest.fn(() => Promise.reject(refused));
  const [before, after] = [review([row(1), row(2)]), review([row(1), row(2, 'On loan.'), row(3)])];
  function Sheet() {
    const [now, setNow] = useState(before);
    const anew = () => Promise.resolve(setNow(after));
    return <ReviewSheet title="Accept" review={now} onClose={() => undefined} onDo={onDo} onAnew={anew} />;
  }
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Sheet />
    </QueryClientProvider>,
  );
  press();
  await waitFor(() => expect(screen.getAllByText(/different from what you reviewed/)).toHaveLength(2));
  expect(onDo).toHaveBeenCalledWith([], before.token);
  expect(screen.getByText('Something has changed since this was reviewed.')).toBeTruthy();
  const marked = [...document.querySelectorAll('.review-row')].filter((r) =>
    r.textContent.includes('different'),
  );
  expect(marked.map((r) => r.querySelector('b')!.textContent)).toEqual(['Record 2', 'Record 3']);
});
