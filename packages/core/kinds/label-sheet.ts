import type { LabelSheet } from '../labels';
import { describeKind } from './kind';

/** A sheet of labels as the library has them. */
export const labelsheet = describeKind<LabelSheet>()({
  kind: 'labelsheet',
  noun: ['sheet of labels', 'sheets of labels'],
  label: (s) => s.name,
  table: 'label_sheets',
  columns: { name: 'text' },
  compute: (s) => ({ name: s.name }),
  parents: [],
  once: [{ columns: ['name'], anyCase: true }],
});
