import type { Starter } from '../editing';
import { describeKind } from './kind';

/** A starter of the library: its own, or one that stands for the one that Osier brings along under a key. */
export interface KeptStarter extends Starter {
  /** The key of the starter that it stands for; '' for one of its own. */
  readonly of: string;
}

/** A prepared beginning for a kind of record. */
export const starter = describeKind<KeptStarter>()({
  kind: 'starter',
  noun: ['starter', 'starters'],
  label: (s) => s.name,
  table: 'starters',
  columns: { name: 'text' },
  compute: (s) => ({ name: s.name }),
  parents: [],
});
