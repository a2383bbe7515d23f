import type { FormField } from '../parts/form/field-kinds';

/** What somebody signs in with. */
export const SIGN_IN: readonly FormField[] = [
  { name: 'login', label: 'Sign-in name' },
  { name: 'password', label: 'Password', kind: 'password' },
];
