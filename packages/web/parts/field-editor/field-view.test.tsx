/** @jest-environment jsdom */
import { begunRecord, promptsOf, STARTERS } from '@osier/core/editing';
import { field, fieldText, type Field, type MarcRecord } from '@osier/core/marc';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useDrafts } from '../../shell/drafts';
import { useShell } from '../../shell/shell-store';
import { useHistories } from '../record-draft/edit-histories';
import { useRecordDraft } from '../record-draft/use-record-draft';
import { FieldView } from './FieldView';
import { loadFormat } from '../format';

// The names of fields are there when they are drawn.
beforeAll(loadFormat);

const KEY = '7';
const saved = (marc: MarcRecord, isNew = false) => ({
  version: 1,
  marc,
  findings: [],
  title: 'Eels',
  path: '/catalogue/7',
  isNew,
});
function Edited({
  marc,
  starter,
  version = 1,
}: {
  marc: MarcRecord;
  starter?: keyof typeof STARTERS;
  version?: number;
}) {
  const edit = useRecordDraft(KEY, { ...saved(marc, starter !== undefined), version });
  const prompts = starter ? promptsOf(STARTERS[starter]!, edit.marc) : [];
  return <FieldView record={edit.marc} edit={edit} prompts={prompts} />;
}
const title = field('245', '10', 'a', 'Notes on eels /', 'c', 'A. Reed.');
const given: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: 'w1' },
    title,
    field('500', '  ', 'a', 'Index.'),
    field('650', ' 0', 'a', 'Eels.', 'a', 'Traps.'),
  ],
};
const edited = (marc = given, starter?: keyof typeof STARTERS) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Edited marc={marc} {...(starter && { starter })} />
    </QueryClientProvider>,
  );
const row = (at: number) => document.querySelector<HTMLElement>(`[data-at="${at}"]`)!;
const press = (at: number, key: string, more: object = {}) => {
  act(() => row(at).focus());
  fireEvent.keyDown(row(at), { key, ...more });
};
const fields = (): string[] =>
  (useDrafts.getState().drafts[KEY]?.marc.fields ?? given.fields).map((f: Field) => fieldText(f));
const paste = (target: Element, text: string) =>
  fireEvent.paste(target, { clipboardData: { getData: () => text } });

beforeEach(() => {
  localStorage.clear();
  useDrafts.setState({ person: null, drafts: {}, forms: {} });
  useDrafts.getState().open(1);
  useHistories.setState({ of: {} });
});
afterEach(cleanup);

test('keys on a row delete, duplicate and move fields, and each is undone and done again', () => {
  edited();
  press(2, 'Delete');
  expect(fields()).toEqual(['001    w1', '245 10 $aNotes on eels /$cA. Reed.', '650 #0 $aEels.$aTraps.']);
  press(1, 'z', { ctrlKey: true });
  expect(fields()).toHaveLength(4);
  press(1, 'y', { ctrlKey: true });
  expect(fields()).toHaveLength(3);
  press(1, 'z', { ctrlKey: true });
  press(2, 'd');
  expect(fields().slice(2, 4)).toEqual(['500 ## $aIndex.', '500 ## $aIndex.']);
  press(4, 'ArrowUp', { altKey: true });
  expect(fields()[3]).toBe('650 #0 $aEels.$aTraps.');
  expect(document.activeElement).toBe(row(3));
});

test('a field is split before the code that comes again, and joined', () => {
  edited();
  press(3, 's');
  expect(fields().slice(3)).toEqual(['650 #0 $aEels.', '650 #0 $aTraps.']);
  press(3, 'j');
  expect(fields().slice(3)).toEqual(['650 #0 $aEels.$aTraps.']);
});

test('fields chosen with Shift and an arrow are deleted together, the leader never', () => {
  edited();
  press(-1, 'Delete');
  press(1, 'ArrowDown', { shiftKey: true });
  press(2, 'ArrowDown', { shiftKey: true });
  expect(screen.getByText('3 fields selected')).toBeTruthy();
  press(3, 'Delete');
  expect(fields()).toEqual(['001    w1']);
});

test('lines are pasted as fields where their tags belong; words in a text stay words', () => {
  edited();
  paste(row(1), '520 ## $aOn eels.\n246 3# $aEel notes');
  expect(fields().map((f) => f.slice(0, 3))).toEqual(['001', '245', '246', '500', '520', '650']);
  press(1, 'Enter');
  const text = document.querySelector('input.sub-text')!;
  expect(paste(text, '500 words')).toBe(true);
  expect(paste(text, '500 ## $aOne\n500 ## $aTwo')).toBe(false);
  expect(fields().filter((f) => f.startsWith('500'))).toHaveLength(3);
});

test('what cannot be pasted is told', () => {
  edited();
  paste(row(1), 'LDR    00000nam\n500 ## $aKept.');
  expect(fields().filter((f) => f.startsWith('500'))).toHaveLength(2);
  expect(useShell.getState().last?.sentence).toContain('The leader was left out');
});

test('8 gives a field its partner and opens it', () => {
  edited();
  press(1, '8');
  expect(fields().at(-1)).toBe('880 10 $6245-01$aNotes on eels /$cA. Reed.');
  expect(document.querySelector<HTMLInputElement>('.field-editor .field-tag')!.value).toBe('880');
});

test('a field is given another tag, and stands where fields of that tag go; undone as one', async () => {
  edited();
  const before = fields();
  const note = before.findIndex((f) => f.startsWith('500'));
  press(note, 'Enter');
  const tag = document.querySelector<HTMLInputElement>('.field-editor .field-tag')!;
  fireEvent.change(tag, { target: { value: '49' } });
  fireEvent.keyDown(tag, { key: 'Enter' });
  expect(useShell.getState().last?.sentence).toContain('“49” is no tag');
  expect(fields()).toEqual(before);
  fireEvent.change(tag, { target: { value: '246' } });
  expect(await screen.findByText('Varying Form of Title')).toBeTruthy();
  fireEvent.keyDown(tag, { key: 'Enter' });
  const after = fields();
  expect(after.filter((f) => f.startsWith('500'))).toHaveLength(
    before.filter((f) => f.startsWith('500')).length - 1,
  );
  const at = after.findIndex((f) => f.startsWith('246'));
  expect(after[at - 1]!.slice(0, 3) <= '246' && (after[at + 1] ?? '999').slice(0, 3) >= '246').toBe(true);
  expect(document.activeElement?.getAttribute('data-at')).toBe(String(at));
  press(at, 'z', { ctrlKey: true });
  expect(useDrafts.getState().drafts[KEY]).toBeUndefined();
});

test('the leader is edited as positions, and takes 008 with it', async () => {
  const fixed = { tag: '008', value: '261128s2019    xx ab  j      100 1aeng d' };
  edited({ ...given, fields: [fixed, title] });
  await screen.findAllByText('Title Statement');
  press(-1, 'Enter');
  const codes = screen.getByLabelText('Codes of LDR');
  fireEvent.change(codes, { target: { value: '00000ngm a2200000 i 4500' } });
  expect(screen.getByText(/Illustrations: ab/)).toBeTruthy();
  fireEvent.keyDown(codes, { key: 'Enter' });
  const { marc } = useDrafts.getState().drafts[KEY]!;
  expect([marc.leader, (marc.fields[0] as { value: string }).value.length]).toEqual([
    '00000ngm a2200000 i 4500',
    40,
  ]);
  press(-1, 'z', { ctrlKey: true });
  expect(useDrafts.getState().drafts[KEY]).toBeUndefined();
});

test('a starter asks for one field after the other, and 008 follows what is typed', () => {
  edited(begunRecord(STARTERS.book!, '2026-11-28', 'eng'), 'book');
  const asked = () =>
    [...document.querySelectorAll('[data-prompt]')].map((p) => p.getAttribute('aria-label'));
  expect(asked()).toContain('Fill in 264 Place, publisher, date');
  fireEvent.keyDown(document.querySelector('[data-prompt]')!, { key: 'Enter' });
  const form = () => document.querySelector<HTMLFormElement>('.field-editor')!;
  const type = (n: number, value: string) =>
    fireEvent.change(form().querySelectorAll('input.sub-text')[n]!, { target: { value } });
  const keep = () => fireEvent.keyDown(form().querySelector('input.sub-text')!, { key: 'Enter' });
  expect(form().querySelector<HTMLInputElement>('.field-tag')!.value).toBe('020');
  type(0, '9780306406157');
  keep();
  expect(form().querySelector<HTMLInputElement>('.field-tag')!.value).not.toBe('020');
  while (form().querySelector<HTMLInputElement>('.field-tag')!.value !== '264') {
    type(0, 'text');
    keep();
  }
  type(2, '2024.');
  keep();
  const marc = useDrafts.getState().drafts[KEY]!.marc;
  expect((marc.fields.find((f) => f.tag === '008') as { value: string }).value.slice(6, 11)).toBe('s2024');
});

test('what is selected is followed through edits and their undoing: an act meets no other field', () => {
  edited();
  const notes = () => fields().filter((f) => f.startsWith('500'));
  const [first] = notes();
  press(fields().indexOf(first!), ' ');
  press(0, 'd');
  // A field before it came and went: the same one is selected, not its place.
  const chosen = () =>
    [...document.querySelectorAll('.field-row[aria-selected=true]')].map((r) =>
      Number(r.getAttribute('data-at')),
    );
  press(fields().indexOf(first!), 'Escape');
  press(fields().indexOf(first!), ' ');
  const at = fields().indexOf(first!);
  expect(chosen()).toEqual([at]);
  press(at, 'ArrowUp', { altKey: true });
  expect(chosen()).toEqual([at - 1]);
  press(at - 1, 'z', { ctrlKey: true });
  expect(chosen()).toEqual([at]);
  const kept = fields().filter((_, i) => i !== at);
  press(0, 'Delete');
  expect(fields()).toEqual(kept);
  expect(chosen()).toEqual([]);
});

test('what somebody else saves while a field is open is met in the draft, and no other field is overwritten', () => {
  const { rerender } = edited();
  press(1, 'Enter');
  const text = document.querySelector<HTMLInputElement>('input.sub-text')!;
  fireEvent.change(text, { target: { value: 'Notes on reeds /' } });
  // A field was added before it, and saved.
  const theirs = {
    ...given,
    fields: [given.fields[0]!, field('020', '  ', 'a', '9780306406157'), ...given.fields.slice(1)],
  };
  rerender(
    <QueryClientProvider client={new QueryClient()}>
      <Edited marc={theirs} version={2} />
    </QueryClientProvider>,
  );
  fireEvent.keyDown(document.querySelector('input.sub-text')!, { key: 'Enter' });
  const draft = useDrafts.getState().drafts[KEY]!;
  expect([draft.version, draft.base]).toEqual([1, given]);
  expect(draft.marc.fields.map((f) => f.tag)).toEqual(['001', '245', '500', '650']);
  expect(fieldText(draft.marc.fields[1]!)).toContain('Notes on reeds /');
});

test('a field that was only looked at leaves no draft, and then what somebody else saved is shown', () => {
  const { rerender } = edited();
  press(2, 'Enter');
  rerender(
    <QueryClientProvider client={new QueryClient()}>
      <Edited marc={{ ...given, fields: [title] }} version={2} />
    </QueryClientProvider>,
  );
  fireEvent.keyDown(document.querySelector('input.sub-text')!, { key: 'Escape' });
  expect(useDrafts.getState().drafts[KEY]).toBeUndefined();
  expect(document.querySelectorAll('.field-row[data-at]')).toHaveLength(2);
});

test('an edit that somebody made in another window ends the undoing, and loses nothing', () => {
  edited();
  press(2, 'Delete');
  const other = { ...useDrafts.getState().drafts[KEY]!, marc: { ...given, fields: [title] } };
  act(() => useDrafts.setState({ drafts: { [KEY]: other } }));
  press(0, 'z', { ctrlKey: true });
  expect(useDrafts.getState().drafts[KEY]).toBe(other);
});

test('another record under another key is not the one that was seen when a field was opened', () => {
  const Either = ({ of, marc }: { of: string; marc: MarcRecord }) => {
    const edit = useRecordDraft(of, saved(marc));
    return <FieldView key={of} record={edit.marc} edit={edit} />;
  };
  const shown = (of: string, marc: MarcRecord) => (
    <QueryClientProvider client={new QueryClient()}>
      <Either of={of} marc={marc} />
    </QueryClientProvider>
  );
  const { rerender } = render(shown('merge 1', given));
  press(1, 'Enter');
  rerender(shown('merge 2', { ...given, fields: [title] }));
  expect(document.querySelector('.field-editor')).toBeNull();
  expect(document.querySelectorAll('.field-row[data-at]')).toHaveLength(2);
});
