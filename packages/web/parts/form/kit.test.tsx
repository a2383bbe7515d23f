/** @jest-environment jsdom */
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { number, object, string } from 'yup';
import { RequestProblem } from '../../api/request';
import { useDrafts } from '../../shell/drafts';
import { CodePicker } from '../CodePicker';
import { KitBar } from './KitBar';
import { KitField } from './KitField';
import { useTyped } from './use-typed';

afterEach(cleanup);
beforeEach(() => {
  localStorage.clear();
  useDrafts.setState({ person: null, drafts: {}, forms: {} });
  useDrafts.getState().open(1);
});

const schema = object({
  name: string().required('Type a name.'),
  place: object({ shelf: number().max(9, 'There are nine shelves.').required() }),
});
interface House {
  readonly name: string;
  readonly place: { readonly shelf: number };
}
const place = { key: 'house', title: 'House', path: '/house', isOfKept: true };

function Form({ initial, onSend }: { initial: House; onSend: (house: House) => Promise<unknown> }) {
  const typed = useTyped<House>({ initial, schema, draft: place });
  return (
    <>
      <KitField label="Name" isRequired problem={typed.problem('name')}>
        <input value={typed.value.name} onChange={(e) => typed.set({ name: e.target.value })} />
      </KitField>
      <KitField label="Shelf" problem={typed.problem('place.shelf')}>
        <input
          value={typed.value.place.shelf}
          onChange={(e) => typed.set({ place: { shelf: Number(e.target.value) } })}
        />
      </KitField>
      <KitBar typed={typed} verb="Save house" onSend={() => void typed.send(onSend)} />
    </>
  );
}
const given: House = { name: 'Reed', place: { shelf: 3 } };
const shown = (initial = given, onSend = jest.fn((_: House) => Promise.resolve<unknown>(null))) => {
  render(<Form initial={initial} onSend={onSend} />);
  return onSend;
};
const input = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const type = (label: string, value: string) => fireEvent.change(input(label), { target: { value } });
const send = () => fireEvent.click(screen.getByRole('button', { name: 'Save house' }));

test('a control has the name of its label, also one that must be filled', () => {
  render(
    <KitField label="Branch" isRequired>
      <CodePicker list={[]} value="" onChange={() => undefined} />
    </KitField>,
  );
  expect(screen.getByRole('combobox', { name: 'Branch' })).toBeTruthy();
});

test('what the schema refuses stands beside its part, also within a part, and nothing is sent', async () => {
  const onSend = shown();
  type('Name', '');
  type('Shelf', '12');
  send();
  expect(await screen.findByText('Type a name.')).toBeTruthy();
  expect(await screen.findByText('There are nine shelves.')).toBeTruthy();
  expect(onSend).not.toHaveBeenCalled();
  type('Shelf', '8');
  expect(screen.queryByText('There are nine shelves.')).toBeNull();
  expect(input('Name').getAttribute('aria-invalid')).toBe('true');
});

test('what the server refuses stands beside its part; what was typed stays', async () => {
  const problem = {
    type: 'about:blank',
    title: 'Not right',
    status: 422,
    detail: 'Not right.',
    fields: [{ field: 'place.shelf', message: 'That shelf is full.' }],
  };
  render(<Form initial={given} onSend={() => Promise.reject(new RequestProblem(problem))} />);
  type('Shelf', '5');
  send();
  expect((await screen.findAllByText('That shelf is full.')).length).toBeGreaterThan(0);
  expect(input('Shelf').value).toBe('5');
});

test('what is typed is found again, over what somebody else has saved meanwhile, until it is sent', async () => {
  shown();
  type('Name', 'Willow');
  cleanup();
  const onSend = shown({ name: 'Reed', place: { shelf: 7 } });
  expect([input('Name').value, input('Shelf').value]).toEqual(['Willow', '7']);
  send();
  await waitFor(() => expect(onSend).toHaveBeenCalledWith({ name: 'Willow', place: { shelf: 7 } }));
  await waitFor(() => expect(useDrafts.getState().forms).toEqual({}));
});

test('what is discarded, or typed back, is not kept', () => {
  shown();
  type('Name', 'Willow');
  fireEvent.click(screen.getByRole('button', { name: 'Discard changes' }));
  expect([input('Name').value, Object.keys(useDrafts.getState().forms)]).toEqual(['Reed', []]);
  type('Name', 'Willow');
  type('Name', 'Reed');
  expect(useDrafts.getState().forms).toEqual({});
});

test('what was saved otherwise meanwhile is told, until it is the same or the changes are discarded', () => {
  shown();
  const told = () => screen.queryByText(/has been saved otherwise since you began/);
  type('Name', 'Rush');
  expect(told()).toBeNull();
  cleanup();
  // Somebody else has saved another shelf: nothing that was typed over.
  shown({ ...given, place: { shelf: 4 } });
  expect([input('Name').value, input('Shelf').value, told()]).toEqual(['Rush', '4', null]);
  cleanup();
  // Then another name, and it stays told while typing goes on.
  shown({ ...given, name: 'Sedge' });
  expect(told()).toBeTruthy();
  type('Name', 'Rushes');
  expect(told()).toBeTruthy();
  type('Name', 'Sedge');
  expect(told()).toBeNull();
  type('Name', 'Withy');
  cleanup();
  shown({ ...given, name: 'Hazel' });
  fireEvent.click(screen.getByRole('button', { name: 'Discard changes' }));
  expect([input('Name').value, told()]).toEqual(['Hazel', null]);
});
