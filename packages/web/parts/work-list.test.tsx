/** @jest-environment jsdom */
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { WorkList } from './WorkList';

const HEIGHT = 460;
beforeAll(() => {
  Object.defineProperty(Element.prototype, 'clientHeight', { configurable: true, value: HEIGHT });
  Object.defineProperty(Element.prototype, 'clientWidth', { configurable: true, value: 400 });
  Element.prototype.scrollTo = () => undefined;
});
afterEach(cleanup);

const items = (n: number) => Array.from({ length: n }, (_, i) => ({ id: 100 + i, name: `Row ${i + 1}` }));

interface ListProps {
  readonly count: number;
  readonly onEnd?: () => void;
  readonly ticking?: boolean;
  readonly isOfBefore?: boolean;
}

function List({ count, onEnd, ticking = false, isOfBefore = false }: ListProps) {
  const [selected, select] = useState<number | null>(null);
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  return (
    <>
      <WorkList
        items={items(count)}
        label="Rows"
        idOf={(i) => i.id}
        selected={selected}
        onOpen={(i) => select(i.id)}
        row={(i) => i.name}
        empty="Nothing here yet."
        onEnd={onEnd}
        answer={{ isPending: false, error: null, isPlaceholderData: isOfBefore }}
        {...(ticking && {
          ticked,
          onTick: (i: { id: number }) => setTicked((t) => new Set([...t, i.id])),
        })}
      />
      <div className="work-piece">
        <button>The piece</button>
      </div>
      <output>{selected}</output>
    </>
  );
}
const list = () => screen.getByRole('listbox', { name: 'Rows' });
const chosen = () => document.querySelector('output')!.textContent;
const key = (name: string) => fireEvent.keyDown(list(), { key: name });

test('only what is in sight is drawn, and every row knows its place', () => {
  render(<List count={13_000} />);
  const rows = screen.getAllByRole('option');
  expect(rows.length).toBeLessThan(40);
  expect(rows[0]!.getAttribute('aria-posinset')).toBe('1');
  expect(rows[0]!.getAttribute('aria-setsize')).toBe('13000');
});

test.each([
  [['ArrowDown'], 100],
  [['ArrowDown', 'ArrowDown', 'ArrowUp'], 100],
  [['ArrowDown', 'PageDown'], 110],
  [['End'], 149],
  [['End', 'ArrowDown'], 149],
  [['End', 'PageUp', 'Home'], 100],
  [['ArrowUp'], 100],
])('%p opens %p', (keys, id) => {
  render(<List count={50} />);
  keys.forEach(key);
  expect(chosen()).toBe(String(id));
});

test('Enter goes to the piece', () => {
  render(<List count={3} />);
  key('ArrowDown');
  key('Enter');
  expect(document.activeElement?.textContent).toBe('The piece');
});

test('Space ticks the row that is open', () => {
  render(<List count={3} ticking />);
  key('ArrowDown');
  key('ArrowDown');
  key(' ');
  expect(screen.getAllByRole('option').map((o) => o.getAttribute('aria-selected'))).toEqual([
    'false',
    'true',
    'false',
  ]);
});

test('a click opens, a click on the tick ticks and does not open', () => {
  render(<List count={3} ticking />);
  fireEvent.click(screen.getByText('Row 3'));
  expect(chosen()).toBe('102');
  fireEvent.click(screen.getAllByTitle('Space')[0]!);
  expect(chosen()).toBe('102');
  expect(screen.getAllByRole('option')[0]!.getAttribute('aria-selected')).toBe('true');
});

test('the end asks for more, the middle does not', () => {
  const onEnd = jest.fn();
  render(<List count={5} onEnd={onEnd} />);
  expect(onEnd).toHaveBeenCalled();
  cleanup();
  onEnd.mockClear();
  render(<List count={5000} onEnd={onEnd} />);
  expect(onEnd).not.toHaveBeenCalled();
});

test('an empty list says what belongs here', () => {
  render(<List count={0} />);
  expect(screen.getByText('Nothing here yet.')).toBeTruthy();
});

test('keys wait while the rows are those of the question before, and go to the rows that were asked for', () => {
  const { rerender } = render(<List count={50} isOfBefore ticking />);
  key('End');
  key(' ');
  expect(list().getAttribute('aria-busy')).toBe('true');
  expect(list().getAttribute('aria-disabled')).toBe('true');
  expect(chosen()).toBe('');
  rerender(<List count={3} ticking />);
  expect(list().getAttribute('aria-busy')).toBeNull();
  expect(chosen()).toBe('102');
  expect(screen.getAllByRole('option').map((o) => o.getAttribute('aria-selected'))).toEqual([
    ...['false', 'false', 'true'],
  ]);
});

test('an empty answer of before is not told as “nothing here” while the next one is on its way', () => {
  render(<List count={0} isOfBefore />);
  expect(screen.queryByText('Nothing here yet.')).toBeNull();
});
