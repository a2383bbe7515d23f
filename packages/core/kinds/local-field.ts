import type { LocalField } from '../holdings';
import { describeKind } from './kind';

/** A field that the library has added to its copies. What copies have in it is theirs: it is not shown while the field is not there. */
export const localfield = describeKind<LocalField>()({
  kind: 'localfield',
  noun: ['local field', 'local fields'],
  label: (f) => f.name,
  table: 'local_fields',
  columns: { name: 'text' },
  compute: (f) => ({ name: f.name }),
  parents: [],
  once: [{ columns: ['name'], anyCase: true }],
});
