/** @jest-environment jsdom */
import { signInBody } from '@osier/contract';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { array, boolean, number, object, string } from 'yup';
import { RequestProblem } from '../../api/request';
import { SchemaForm } from './SchemaForm';

afterEach(cleanup);
const FIELDS = [
  { name: 'login', label: 'Sign-in name' },
  { name: 'password', label: 'Password', kind: 'password' },
] as const;
const refusal = (fields: { field: string; message: string }[]) =>
  new RequestProblem({ type: 'about:blank', title: 'Not right', status: 422, detail: 'Not right.', fields });
function shown(onSend = jest.fn(() => Promise.resolve())) {
  render(<SchemaForm schema={signInBody} fields={FIELDS} verb="Sign in" onSend={onSend} />);
  return onSend;
}
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const send = () => fireEvent.click(screen.getByRole('button', { name: 'Sign in' }));

test('what the schema refuses is told beside the field in its own words, and nothing is sent', async () => {
  const onSend = shown();
  send();
  expect(await screen.findByText('Type your name.')).toBeTruthy();
  expect(await screen.findByText('Type your password.')).toBeTruthy();
  expect(onSend).not.toHaveBeenCalled();
});

test('what is right is sent', async () => {
  const onSend = shown();
  type('Sign-in name', 'nell');
  type('Password', 'a long one 7');
  send();
  await waitFor(() => expect(onSend).toHaveBeenCalledWith({ login: 'nell', password: 'a long one 7' }));
});

test('what the server refuses stands beside its field; what was typed stays', async () => {
  shown(jest.fn(() => Promise.reject(refusal([{ field: 'password', message: 'It is not right.' }]))));
  type('Sign-in name', 'nell');
  type('Password', 'wrong');
  send();
  expect(await screen.findByText('It is not right.')).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Sign-in name').value).toBe('nell');
  expect(screen.getByLabelText<HTMLInputElement>('Password').value).toBe('wrong');
});

test('what belongs to no field is told once for all', async () => {
  shown(jest.fn(() => Promise.reject(refusal([{ field: 'elsewhere', message: 'Too many tries.' }]))));
  type('Sign-in name', 'nell');
  type('Password', 'x');
  send();
  expect((await screen.findByRole('alert')).textContent).toContain('Too many tries.');
});

test('a field that hangs on another is emptied when that is changed; kinds of field give what the schema wants', async () => {
  const schema = object({
    name: string().required(),
    count: number().required('Type a number.'),
    tags: array(string().required()).required(),
    isOn: boolean().required(),
    note: string().defined(),
  });
  const onSend = jest.fn(() => Promise.resolve());
  render(
    <SchemaForm
      schema={schema}
      initial={{ note: 'first', tags: ['59.'] }}
      fields={(typed) => [
        { name: 'name', label: 'Name' },
        { name: 'count', label: 'Count', kind: 'number' },
        { name: 'tags', label: 'Tags', kind: 'tags' },
        { name: 'isOn', label: 'On', kind: 'flag' },
        { name: 'note', label: typed.isOn === true ? 'Note on' : 'Note off' },
      ]}
      follow={(changed) => ('name' in changed ? { note: '' } : {})}
      verb="Save"
      onSend={onSend}
    />,
  );
  type('Name', 'reeds');
  fireEvent.click(screen.getByRole('checkbox', { name: 'On' }));
  expect((await screen.findByLabelText<HTMLInputElement>('Note on')).value).toBe('');
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('Type a number.')).toBeTruthy();
  expect(onSend).not.toHaveBeenCalled();
  type('Count', '12');
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() =>
    expect(onSend).toHaveBeenCalledWith({ name: 'reeds', count: 12, tags: ['59.'], isOn: true, note: '' }),
  );
});

test('a refusal that brings a field of its own is told beside that field', async () => {
  const schema = object({ name: string().required(), isMeant: boolean().required() });
  function Asking() {
    const [isAsked, setAsked] = useState(false);
    return (
      <SchemaForm
        schema={schema}
        initial={{ name: 'reeds', isMeant: false }}
        fields={[
          { name: 'name', label: 'Name' },
          ...(isAsked ? [{ name: 'isMeant', label: 'It is meant', kind: 'flag' } as const] : []),
        ]}
        follow={() => ({ isMeant: false })}
        verb="Save"
        onSend={async () => {
          await Promise.resolve();
          setAsked(true);
          throw refusal([{ field: 'isMeant', message: 'Looks like reed.' }]);
        }}
      />
    );
  }
  render(<Asking />);
  type('Name', 'reedz');
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await screen.findByText('Looks like reed.');
  expect(screen.getByRole('checkbox', { name: 'It is meant' }).getAttribute('aria-invalid')).toBe('true');
});
