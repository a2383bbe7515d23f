/** @jest-environment jsdom */
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { Button } from 'antd';
import type { ReactElement } from 'react';
import { ActionMenu } from './ActionMenu';

afterEach(cleanup);
const done: string[] = [];
beforeEach(() => done.splice(0));
const line = (key: string) => ({ key, label: key, onClick: () => void done.push(key) });
const menuOf = (keys: readonly string[]): ReactElement => (
  <ActionMenu menu={{ items: keys.map(line) }}>
    <Button>More</Button>
  </ActionMenu>
);
const press = (key: string) => fireEvent.keyDown(document.activeElement ?? document.body, { key });
const open = () => fireEvent.click(screen.getByRole('button', { name: 'More' }));
const lineOf = (name: string) => screen.findByRole('menuitem', { name });

test('the first line has the focus when the menu is there', async () => {
  render(menuOf(['Move', 'Delete']));
  open();
  const first = await lineOf('Move');
  await waitFor(() => expect(document.activeElement).toBe(first));
});
test('keys that come before the lines do are obeyed when they are there', async () => {
  const { rerender } = render(menuOf([]));
  open();
  press('ArrowDown');
  press('Enter');
  expect(done).toEqual([]);
  rerender(menuOf(['Move', 'Delete', 'History']));
  await waitFor(() => expect(done).toEqual(['Delete']));
});
test('the arrow up leads from the first line to the last', async () => {
  render(menuOf(['Move', 'Delete']));
  open();
  press('ArrowUp');
  press(' ');
  await waitFor(() => expect(done).toEqual(['Delete']));
});
test('keys with Ctrl or Alt, and letters, are not the menu’s', () => {
  const heard: string[] = [];
  const hear = (e: KeyboardEvent) => void heard.push(e.key);
  window.addEventListener('keydown', hear);
  render(menuOf([]));
  open();
  press('x');
  fireEvent.keyDown(document.body, { key: 'Enter', ctrlKey: true });
  press('Enter');
  window.removeEventListener('keydown', hear);
  expect(heard).toEqual(['x', 'Enter']);
});
test('a line that is a link is followed by Enter', async () => {
  const followed: string[] = [];
  const link = (
    <a
      href="#file"
      onClick={(e) => {
        e.preventDefault();
        followed.push('file');
      }}
    >
      As a file
    </a>
  );
  render(
    <ActionMenu menu={{ items: [{ key: 'file', label: link }] }}>
      <Button>More</Button>
    </ActionMenu>,
  );
  open();
  const item = await lineOf('As a file');
  await waitFor(() => expect(document.activeElement).toBe(item));
  fireEvent.keyDown(item, { key: 'Enter', keyCode: 13, which: 13 });
  expect(followed).toEqual(['file']);
});
