/** @jest-environment jsdom */
import type { Finding } from '@osier/core/checks';
import { field, type Field, type MarcRecord } from '@osier/core/marc';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Compare } from './Compare';
import { Facets } from './Facets';
import { FieldView } from './field-editor/FieldView';
import { FindingCounts } from './Mark';
import type { RecordDraft } from './record-draft/use-record-draft';
import { SideBySide } from './SideBySide';
import { loadFormat } from './format';

// The names of fields are there when they are drawn.
beforeAll(loadFormat);

afterEach(cleanup);
const shown = (part: ReactNode) =>
  render(<QueryClientProvider client={new QueryClient()}>{part}</QueryClientProvider>);

const record = (...fields: Field[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '008', value: '120508s1990    enka          000 0 eng d' }, ...fields],
});
const title = field('245', '10', 'a', 'Notes on eels /', 'c', 'A. Reed.');
const finding = (at: number, rule: string, more: Partial<Finding['where']> = {}, fix = false): Finding => ({
  rule,
  severity: 'warning',
  where: { field: at, tag: '245', occurrence: 0, ...more },
  message: `About ${rule}.`,
  ...(fix && { fix: { sentence: `Fix ${rule}`, safe: true, edits: [] } }),
});
const rowOf = (container: HTMLElement, at: number) =>
  container.querySelector<HTMLElement>(`[data-at="${at}"]`)!;

/** A draft of which only some parts are asked. */
const edit = (parts: Partial<RecordDraft>): RecordDraft =>
  ({ adding: null, hold: () => undefined, ...parts }) as RecordDraft;

describe('the field view', () => {
  test('a row a field: tag, indicators with blanks as dots, subfield codes raised', () => {
    const { container } = shown(<FieldView record={record(title, field('500', '  ', 'a', 'Index.'))} />);
    expect(rowOf(container, 1).querySelector('.field-tag')!.textContent).toMatch(/^245/);
    expect([...rowOf(container, 1).querySelectorAll('.ind')].map((i) => i.textContent)).toEqual(['1', '0']);
    expect([...rowOf(container, 2).querySelectorAll('.ind')].map((i) => i.textContent)).toEqual(['·', '·']);
    expect([...rowOf(container, 1).querySelectorAll('.code')].map((c) => c.textContent)).toEqual(['a', 'c']);
  });

  test('names of tags and subfields come from the format', async () => {
    const { container } = shown(<FieldView record={record(title)} />);
    await screen.findByText('Title Statement');
    expect(rowOf(container, 1).querySelector('.code')!.getAttribute('title')).toBe('Title');
    fireEvent.click(within(rowOf(container, 0)).getByText('Decoded'));
    expect(rowOf(container, 0).textContent).toMatch(/Language.*English/);
  });

  test('each finding is underlined where it is, told below, and mended by f', () => {
    const onFix = jest.fn();
    const found = [
      finding(1, 'first', { subfield: 0, start: 0, end: 5 }),
      finding(1, 'second', { subfield: 0, start: 9, end: 13 }, true),
    ];
    const { container } = shown(
      <FieldView record={record(title)} findings={found} edit={edit({ fix: onFix })} />,
    );
    const row = rowOf(container, 1);
    expect([...row.querySelectorAll('u.found')].map((u) => u.textContent)).toEqual(['Notes', 'eels']);
    expect(within(row).getByText(/About first\./, { selector: 'li' })).toBeTruthy();
    fireEvent.keyDown(row, { key: 'f' });
    expect(onFix).toHaveBeenCalledWith(found[1]);
    fireEvent.click(within(row).getByText(/Fix second/));
    expect(onFix).toHaveBeenCalledTimes(2);
  });

  test('an 880 stands under its partner, right to left where it runs so', () => {
    const { container } = shown(
      <FieldView
        record={record(
          field('245', '10', '6', '880-01', 'a', 'Kelim'),
          field('500', '  ', 'a', 'Index.'),
          field('880', '10', '6', '245-01/(2/r', 'a', 'קליעה'),
        )}
      />,
    );
    const order = [...container.querySelectorAll<HTMLElement>('[data-at]')].map((r) => r.dataset.at);
    expect(order).toEqual(['-1', '0', '1', '3', '2']);
    expect(rowOf(container, 3).querySelector('.field-text')!.getAttribute('dir')).toBe('rtl');
    expect(rowOf(container, 1).querySelector('.field-text')!.getAttribute('dir')).toBeNull();
  });

  test('arrows go from field to field; Enter opens the editor only where fields can be changed', () => {
    const fields = record(title);
    const { container, rerender } = shown(<FieldView record={fields} />);
    act(() => rowOf(container, 0).focus());
    fireEvent.keyDown(rowOf(container, 0), { key: 'ArrowDown' });
    expect(document.activeElement).toBe(rowOf(container, 1));
    fireEvent.keyDown(rowOf(container, 1), { key: 'Enter' });
    expect(container.querySelector('.field-editor')).toBeNull();
    rerender(
      <QueryClientProvider client={new QueryClient()}>
        <FieldView record={fields} edit={edit({})} />
      </QueryClientProvider>,
    );
    fireEvent.keyDown(rowOf(container, 1), { key: 'Enter' });
    expect(container.querySelector('.field-editor')).not.toBeNull();
  });

  test('text in a record is text, never markup', () => {
    const { container } = shown(
      <FieldView record={record(field('500', '  ', 'a', '<img src=x onerror=alert(1)>'))} />,
    );
    expect(container.querySelector('img')).toBeNull();
    expect(container.textContent).toContain('<img src=x onerror=alert(1)>');
  });

  test('several fields copied are plain text, with codes', () => {
    const { container } = shown(<FieldView record={record(title, field('500', '  ', 'a', 'Index.'))} />);
    const selection = window.getSelection()!;
    selection.selectAllChildren(container.querySelector('.field-view')!);
    const clipboard = { setData: jest.fn() };
    fireEvent.copy(container.querySelector('.field-view')!, { clipboardData: clipboard });
    expect(clipboard.setData).toHaveBeenCalledWith(
      'text/plain',
      '008    120508s1990    enka          000 0 eng d\n245 10 $aNotes on eels /$cA. Reed.\n500 ## $aIndex.',
    );
  });
});

describe('two records as one list', () => {
  const before = record(title, field('650', ' 0', 'a', 'Eels.'));
  test('what stays is folded away, and counted', () => {
    const { container } = shown(<Compare before={before} after={record(title)} />);
    expect(container.querySelector('del')!.textContent).toContain('Eels.');
    expect(container.textContent).not.toContain('Notes on eels');
    fireEvent.click(screen.getByText('3 unchanged fields'));
    expect(container.textContent).toContain('Notes on eels');
    fireEvent.click(screen.getByText('Hide unchanged fields'));
    expect(container.textContent).not.toContain('Notes on eels');
  });
  test('one that stays is one', () => {
    const bare = { leader: record().leader, fields: [] };
    shown(<Compare before={bare} after={{ ...bare, fields: [title] }} />);
    expect(screen.getByText('1 unchanged field')).toBeTruthy();
  });
  test('inside a field lost text is struck and new text marked', () => {
    const after = record(field('245', '10', 'a', 'Notes on reeds /', 'c', 'A. Reed.'));
    const { container } = shown(<Compare before={record(title)} after={after} />);
    const row = container.querySelector('.compare-row.changed')!;
    expect(row.querySelector('del')!.textContent).toContain('eels');
    expect(row.querySelector('ins')!.textContent).toContain('reeds');
    expect(row.textContent).toContain('A. Reed.');
  });
});

describe('records side by side', () => {
  const cells = (container: HTMLElement) =>
    [...container.querySelectorAll('.side-row:not(.head)')].map((row) =>
      [...row.querySelectorAll('[role="cell"]')].map(
        (c) => `${c.className}:${c.textContent?.replace(/^\d{3}|Field/g, '')}`,
      ),
    );
  test('like fields stand on one line; what is new, gone or changed is marked', () => {
    const left = record(title, field('650', ' 0', 'a', 'Eels'), field('650', ' 0', 'a', 'Fens'));
    const right = record(title, field('650', ' 0', 'a', 'Fens'), field('700', '1 ', 'a', 'Reed, A.'));
    const { container } = shown(
      <SideBySide
        columns={[
          { name: 'incoming', record: left },
          { name: 'held', record: right },
        ]}
      />,
    );
    expect(screen.getAllByRole('columnheader').map((h) => h.textContent)).toEqual([
      'Field',
      'incoming',
      'held',
    ]);
    const rows = cells(container);
    const rowWith = (text: string) => rows.filter((r) => r.some((c) => c.includes(text)));
    expect(rowWith('Fens')).toHaveLength(1);
    expect(rowWith('Fens')[0]![1]).toMatch(/^same:/);
    expect(rowWith('Eels')[0]![1]).toBe('gone:missing');
    expect(rowWith('Reed, A.')[0]![1]).toMatch(/^new:/);
    expect(rowWith('Notes')[0]![1]).toMatch(/^same:/);
  });
  test('a field that differs stands beside its like, not on a line of its own', () => {
    const other = record(field('245', '14', 'a', 'The eels /', 'c', 'A. Reed.'));
    const { container } = shown(
      <SideBySide
        columns={[
          { name: 'a', record: record(title) },
          { name: 'b', record: other },
          { name: 'c', record: record(title) },
        ]}
      />,
    );
    const rows = cells(container).filter((r) => r.some((c) => c.includes('eels')));
    expect(rows).toHaveLength(1);
    expect(rows[0]!.map((c) => c.split(':')[0])).toEqual(['', 'changed', 'changed']);
  });
});

describe('facets', () => {
  const facets = [
    { value: 'ask', name: 'to decide', count: 1200 },
    { value: 'add', name: 'to add', count: 3 },
    { value: 'skip', name: 'to skip', count: 0 },
    { value: 'held', name: 'already held', count: 7 },
  ];
  const names = () => screen.getAllByRole('button').map((b) => b.textContent);
  test('only what there is, with its number; the chosen one also when it has none', () => {
    const { unmount } = shown(<Facets facets={facets} chosen={undefined} onChoose={() => undefined} />);
    expect(names()).toEqual(['to decide1,200', 'to add3', 'already held7']);
    unmount();
    shown(<Facets facets={facets} chosen="skip" onChoose={() => undefined} />);
    expect(screen.getByRole('button', { pressed: true }).textContent).toBe('to skip0');
  });
  test('pressing chooses, pressing again shows all', () => {
    const onChoose = jest.fn();
    shown(<Facets facets={facets} chosen="add" onChoose={onChoose} />);
    fireEvent.click(screen.getByText('already held'));
    fireEvent.click(screen.getByText('to add'));
    expect(onChoose.mock.calls).toEqual([['held'], [undefined]]);
  });
  test('many are folded, the chosen one never', () => {
    shown(<Facets facets={facets} chosen="held" onChoose={() => undefined} most={1} />);
    expect(names()).toEqual(['to decide1,200', 'already held7', '1 more']);
    fireEvent.click(screen.getByText('1 more'));
    expect(names()).toHaveLength(3);
  });
});

test('counts of findings are told in words, one as one', () => {
  const { container, unmount } = shown(<FindingCounts errors={1} warnings={2} advice={1} />);
  expect([...container.querySelectorAll('[title]')].map((m) => m.getAttribute('title'))).toEqual([
    '1 error',
    '2 warnings',
    '1 piece of advice',
  ]);
  unmount();
  expect(shown(<FindingCounts errors={0} warnings={0} advice={0} />).container.textContent).toContain(
    'No findings',
  );
});
