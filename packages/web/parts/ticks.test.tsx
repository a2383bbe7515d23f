/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { useTicks } from './ticks';

beforeEach(() => sessionStorage.clear());
const idsOf = (name: string) => [...renderHook(() => useTicks(name)).result.current.ids];

test('ticks outlast the page, by name, until they are cleared', () => {
  const { result } = renderHook(() => useTicks('pile 1'));
  act(() => result.current.flip(7));
  act(() => result.current.add([8, 9, 7]));
  act(() => result.current.flip(8));
  expect([...result.current.ids]).toEqual([7, 9]);
  expect([idsOf('pile 1'), idsOf('pile 2')]).toEqual([[7, 9], []]);
  act(() => result.current.clear());
  expect(idsOf('pile 1')).toEqual([]);
});
test('another list of the same part has its own', () => {
  const { result, rerender } = renderHook(({ name }) => useTicks(name), { initialProps: { name: 'a' } });
  act(() => result.current.flip(1));
  rerender({ name: 'b' });
  expect([...result.current.ids]).toEqual([]);
  act(() => result.current.flip(2));
  rerender({ name: 'a' });
  expect([...result.current.ids]).toEqual([1]);
});
test('what is kept and is no list of numbers is none', () => {
  sessionStorage.setItem('osier-kept ticks x', '{"a":1}');
  sessionStorage.setItem('osier-kept ticks y', 'not JSON');
  expect([idsOf('x'), idsOf('y')]).toEqual([[], []]);
});
