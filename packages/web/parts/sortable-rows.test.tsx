/** @jest-environment jsdom */
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { SortableRows } from './SortableRows';

afterEach(cleanup);

function List({ disabled = false }: { disabled?: boolean }) {
  const [rows, setRows] = useState(['reed', 'willow', 'hazel']);
  return (
    <SortableRows
      rows={rows}
      keyOf={(r) => r}
      nameOf={(r) => r}
      label="Woods"
      disabled={disabled}
      onOrder={setRows}
    >
      {(r) => <b>{r}</b>}
    </SortableRows>
  );
}
const order = () =>
  [...screen.getByRole('list', { name: 'Woods' }).querySelectorAll('b')].map((b) => b.textContent);
const handle = (name: string) => screen.getByRole('button', { name: `Move ${name}` });
const press = (name: string, key: string) => fireEvent.keyDown(handle(name), { key, altKey: true });

test('Alt and an arrow key move a row, and its handle keeps the focus', () => {
  render(<List />);
  handle('hazel').focus();
  press('hazel', 'ArrowUp');
  expect(order()).toEqual(['reed', 'hazel', 'willow']);
  expect(document.activeElement).toBe(handle('hazel'));
  press('reed', 'ArrowDown');
  expect(order()).toEqual(['hazel', 'reed', 'willow']);
});
test('the first goes no further up, the last no further down', () => {
  render(<List />);
  press('reed', 'ArrowUp');
  press('hazel', 'ArrowDown');
  expect(order()).toEqual(['reed', 'willow', 'hazel']);
});
test('an order that cannot be changed has no handles', () => {
  render(<List disabled />);
  expect(screen.queryAllByRole('button')).toEqual([]);
});
