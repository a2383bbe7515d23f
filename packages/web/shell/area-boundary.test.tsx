/** @jest-environment jsdom */
import { cleanup, render, screen } from '@testing-library/react';
import { AreaBoundary } from './AreaBoundary';

afterEach(cleanup);
const Broken = (): never => {
  throw new Error('no such field');
};

test('an area that fails leaves what is around it, and says so', () => {
  const silenced = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  render(
    <>
      <nav>Areas</nav>
      <AreaBoundary>
        <Broken />
      </AreaBoundary>
    </>,
  );
  silenced.mockRestore();
  expect(screen.getByText('Areas')).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toContain('no such field');
  expect(screen.getByRole('button', { name: 'Reload' })).toBeTruthy();
});
test('one that does not is shown', () => {
  render(<AreaBoundary>Fine</AreaBoundary>);
  expect(screen.getByText('Fine')).toBeTruthy();
});
