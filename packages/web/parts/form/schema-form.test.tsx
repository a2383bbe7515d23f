/** @jest-environment jsdom */
import { signInBody } from '@osier/contract';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
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
