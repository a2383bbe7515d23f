/** @jest-environment jsdom */
import type { Person, PileDetail, PileScans } from '@osier/contract';
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { queries } from '../../api/queries';
import { PersonContext } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { PilePiece } from './PilePiece';

const row = (object: number) => ({
  object,
  record: object + 100,
  title: `Title ${object} <i>`,
  author: 'Reed, A.',
  year: '1990',
  callNumber: '746.41 REE',
  barcode: `3120400050000${object}`,
  place: 'Millrace, Open shelves',
  status: object === 2 ? 'in repair' : 'available',
});
const pile: PileDetail = {
  id: 4,
  version: 7,
  name: 'For the binder',
  of: 'copy',
  note: 'by June',
  by: 'Tobias Fenn',
  madeOn: '2026-11-25',
  count: 4,
  gone: 1,
  rows: [row(1), row(2), row(3)],
  next: null,
};

/** The server as a table of answers; what was sent to it is kept. */
function served(answers: Record<string, unknown>) {
  const sent: { path: string; body: unknown }[] = [];
  window.fetch = jest.fn((input: RequestInfo | URL, init?: RequestInit) => {
    const path = (input as string).replace('/api', '');
    if (init?.body) sent.push({ path, body: JSON.parse(init.body as string) });
    const answer = answers[`${init?.method ?? 'GET'} ${path}`] ?? [];
    return Promise.resolve({
      ok: true,
      status: 200,
      headers: new Map([['content-type', 'application/json']]),
      text: () => Promise.resolve(JSON.stringify(answer)),
    } as unknown as Response);
  });
  return sent;
}

afterEach(() => {
  cleanup();
  queries.clear();
});
async function shown(role: Person['role'], answers: Record<string, unknown> = {}) {
  const sent = served({ 'GET /piles/4': pile, ...answers });
  render(
    <QueryClientProvider client={queries}>
      <PersonContext value={{ id: 2, name: 'Tobias Fenn', login: 'tobias', role, rights: [] }}>
        <MemoryRouter>
          <PilePiece id={4} onBack={() => undefined} />
        </MemoryRouter>
      </PersonContext>
    </QueryClientProvider>,
  );
  await screen.findByText('For the binder');
  return sent;
}

test('what lies on a pile, what is not in the catalogue now, and no markup of a title', async () => {
  await shown('cataloguer');
  expect(screen.getByText(/4 copies · started by Tobias Fenn on 2026-11-25 · by June/)).toBeTruthy();
  expect(screen.getByText(/1 copy of this pile is not in the catalogue now/)).toBeTruthy();
  const link = screen.getByRole('link', { name: 'Title 2 <i>' });
  expect(link.getAttribute('href')).toBe('/catalogue/102?copy=2');
  expect(link.parentElement!.textContent).toContain('746.41 REE · Millrace, Open shelves · in repair');
});

test('who may only look finds no field to scan into, and nothing to tick', async () => {
  await shown('assistant');
  expect(screen.queryByRole('textbox')).toBeNull();
  expect(screen.queryByRole('checkbox')).toBeNull();
  expect(screen.queryByText('Delete pile')).toBeNull();
});

test('scans are sent, and what is not known stays on screen until it has been seen', async () => {
  const answer: PileScans = {
    entry: 9,
    sentence: 'Added 1 copy to the pile “For the binder”',
    added: 1,
    repeated: 1,
    unknown: [{ code: '99999', message: 'No copy has this barcode.' }],
  };
  const sent = await shown('cataloguer', { 'POST /piles/4/scans': answer });
  const field = screen.getByRole('textbox', { name: /Scan or paste/ });
  fireEvent.change(field, { target: { value: '31204000500009 31204000500009 99999' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(await screen.findByText('1 copy added, 1 already there, 1 not known')).toBeTruthy();
  expect(sent).toEqual([
    { path: '/piles/4/scans', body: { codes: ['31204000500009', '31204000500009', '99999'] } },
  ]);
  expect(useShell.getState().last).toMatchObject({ entry: 9, sentence: answer.sentence });
  expect(screen.getByRole('alert').textContent).toContain('99999 No copy has this barcode.');
  fireEvent.click(screen.getByRole('button', { name: 'Dismiss' }));
  expect(screen.queryByRole('alert')).toBeNull();
});

test('what is ticked is taken off, by number', async () => {
  const sent = await shown('cataloguer', {
    'POST /piles/4/take-off': { entry: 10, sentence: 'Took 2 copies off' },
  });
  expect(screen.queryByRole('button', { name: /^Remove .* from pile$/ })).toBeNull();
  for (const name of [/Title 1/, /Title 3/]) fireEvent.click(screen.getByRole('checkbox', { name }));
  fireEvent.click(screen.getByRole('button', { name: 'Remove 2 copies from pile' }));
  await waitFor(() => expect(sent).toEqual([{ path: '/piles/4/take-off', body: { objects: [1, 3] } }]));
});
