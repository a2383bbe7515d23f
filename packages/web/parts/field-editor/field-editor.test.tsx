/** @jest-environment jsdom */
import { field, type Field } from '@osier/core/marc';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { FieldEditor } from './FieldEditor';
import { loadFormat } from '../format';

// The names of fields are there when they are drawn.
beforeAll(loadFormat);

afterEach(cleanup);
const given = field('245', '10', 'a', 'Notes on eels /', 'c', 'A. Reed.');
function edited(of: Field = given) {
  const [onSave, onCancel] = [jest.fn(), jest.fn()];
  render(
    <QueryClientProvider client={new QueryClient()}>
      <FieldEditor
        record={{ leader: '00000nam a2200000 i 4500', fields: [of] }}
        field={of}
        onSave={onSave}
        onCancel={onCancel}
      />
    </QueryClientProvider>,
  );
  return { onSave, onCancel };
}
const texts = () => [...document.querySelectorAll<HTMLInputElement>('input.sub-text')];
const codes = () => [...document.querySelectorAll<HTMLInputElement>('input.sub-code')];
const type = (input: HTMLInputElement, value: string) => fireEvent.change(input, { target: { value } });

test('the first text has the focus, and Enter keeps what was typed', () => {
  const { onSave } = edited();
  expect(document.activeElement).toBe(texts()[0]);
  type(texts()[0]!, 'Notes on reeds /');
  fireEvent.keyDown(texts()[0]!, { key: 'Enter' });
  expect(onSave).toHaveBeenCalledWith(field('245', '10', 'a', 'Notes on reeds /', 'c', 'A. Reed.'));
});
test('Ctrl S keeps too; Esc leaves it as it was', () => {
  const { onSave, onCancel } = edited();
  type(texts()[1]!, 'B. Reed.');
  fireEvent.keyDown(texts()[1]!, { key: 'S', code: 'KeyS', ctrlKey: true });
  expect(onSave).toHaveBeenCalledWith(field('245', '10', 'a', 'Notes on eels /', 'c', 'B. Reed.'));
  fireEvent.keyDown(texts()[1]!, { key: 'Escape' });
  expect(onCancel).toHaveBeenCalledTimes(1);
});
test('a subfield is added by key behind the one with the caret, and its code has the focus', () => {
  const { onSave } = edited();
  fireEvent.keyDown(texts()[0]!, { key: '+', altKey: true });
  expect(document.activeElement).toBe(codes()[1]);
  type(codes()[1]!, 'b');
  type(texts()[1]!, 'a study');
  fireEvent.keyDown(texts()[1]!, { key: 'Enter' });
  expect(onSave).toHaveBeenCalledWith(
    field('245', '10', 'a', 'Notes on eels /', 'b', 'a study', 'c', 'A. Reed.'),
  );
});
test('a subfield without code or text is none; a field without any is taken away', () => {
  const { onSave } = edited();
  type(texts()[1]!, '  ');
  fireEvent.keyDown(texts()[1]!, { key: 'Enter' });
  expect(onSave).toHaveBeenLastCalledWith(field('245', '10', 'a', 'Notes on eels /'));
  type(codes()[0]!, '');
  fireEvent.keyDown(texts()[0]!, { key: 'Enter' });
  expect(onSave).toHaveBeenLastCalledWith(null);
});
test('an indicator that is emptied is blank', () => {
  const { onSave } = edited();
  type(screen.getByLabelText(/First indicator/), '');
  type(screen.getByLabelText(/Second indicator/), '4');
  fireEvent.keyDown(texts()[0]!, { key: 'Enter' });
  expect(onSave).toHaveBeenCalledWith({ ...given, ind1: ' ', ind2: '4' });
});
test('a control field is one text', () => {
  const { onSave } = edited({ tag: '001', value: 'w1' });
  type(texts()[0]!, 'w2');
  fireEvent.keyDown(texts()[0]!, { key: 'Enter' });
  expect(onSave).toHaveBeenCalledWith({ tag: '001', value: 'w2' });
});
test('the field can be taken away', () => {
  const { onSave } = edited();
  fireEvent.click(screen.getByText('Delete field'));
  expect(onSave).toHaveBeenCalledWith(null);
});
test('Tab goes from text to text; from the beginning of one an arrow leads to its code and back', () => {
  edited();
  expect(codes().map((c) => c.tabIndex)).toEqual([-1, -1]);
  const text = texts()[1]!;
  text.focus();
  text.setSelectionRange(3, 3);
  fireEvent.keyDown(text, { key: 'ArrowLeft' });
  expect(document.activeElement).toBe(text);
  text.setSelectionRange(0, 0);
  fireEvent.keyDown(text, { key: 'ArrowLeft' });
  expect(document.activeElement).toBe(codes()[1]);
  fireEvent.keyDown(codes()[1]!, { key: 'ArrowRight' });
  expect(document.activeElement).toBe(text);
  // A new one begins with its code.
  fireEvent.keyDown(text, { key: '+', altKey: true });
  expect([codes()[2], codes()[2]?.tabIndex]).toEqual([document.activeElement, 0]);
});
