/** @jest-environment jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { actsOnPage, useActKeys } from './act-keys';

beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

function Page({ onPile, onMerge }: { onPile: () => void; onMerge: () => void }) {
  useActKeys();
  return (
    <>
      <button data-key="p" onClick={onPile}>
        Add to pile
      </button>
      <button data-key="m" disabled onClick={onMerge}>
        Merge
      </button>
      <span data-key="c">
        <input aria-label="Clean" />
      </span>
      <input aria-label="Note" />
    </>
  );
}
const shown = () => {
  const [onPile, onMerge] = [jest.fn(), jest.fn()];
  render(<Page {...{ onPile, onMerge }} />);
  return { onPile, onMerge };
};
const press = (key: string, on: Element = document.body) => fireEvent.keyDown(on, { key });
const wait = (ms: number) => act(() => jest.advanceTimersByTime(ms));

test('a letter presses its button, or goes to its field', () => {
  const { onPile, onMerge } = shown();
  press('p');
  wait(100);
  expect(onPile).toHaveBeenCalledTimes(1);
  press('c');
  wait(100);
  expect(document.activeElement).toBe(screen.getByLabelText('Clean'));
  press('m');
  wait(100);
  expect(onMerge).not.toHaveBeenCalled();
});
test('letters in a field and letters of a scan do nothing', () => {
  const { onPile } = shown();
  press('p', screen.getByLabelText('Note'));
  wait(100);
  press('p');
  wait(8);
  press('3');
  wait(100);
  expect(onPile).not.toHaveBeenCalled();
});
test('what can be done is told with its keys', () => {
  shown();
  expect(actsOnPage()).toEqual([
    ['p', 'Add to pile'],
    ['c', 'Clean'],
  ]);
});
