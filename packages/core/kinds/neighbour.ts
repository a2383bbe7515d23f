import type { Neighbour } from '../neighbours';
import { describeKind } from './kind';

/** A library whose records may be copied. */
export const neighbour = describeKind<Neighbour>()({
  kind: 'neighbour',
  noun: ['neighbour', 'neighbours'],
  label: (n) => n.name,
  table: 'neighbours',
  columns: { name: 'text' },
  compute: (n) => ({ name: n.name }),
  parents: [],
  once: [{ columns: ['name'], anyCase: true }],
});
