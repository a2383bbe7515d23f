import type { FormField } from '../parts/form/field-kinds';
import { shellWords as wording } from './words';

/** What somebody signs in with. */
export const SIGN_IN: readonly FormField[] = [
  { name: 'login', label: wording.signInName },
  { name: 'password', label: wording.password, kind: 'password' },
];
