import type { Act } from '@osier/core/acts';
import type { ChangeSet } from '@osier/core/kinds';
import type { Transaction } from './database';

/** What a plan gives: a change set, and what it does as the daybook keeps it. */
export interface Planned {
  /** What is done, as the daybook keeps it. */
  readonly did: Act;
  readonly changes: ChangeSet;
  /** Another part of an entry that long work has begun. */
  readonly entry?: number;
  readonly undoes?: number;
  /** More to do in the same transaction, such as keeping a job's cursor; `entry` is null when nothing has been written yet. */
  readonly also?: (tx: Transaction, entry: number | null) => Promise<void>;
  /** Long work goes on over objects that need no change. */
  readonly mayBeNothing?: boolean;
}

/** An act to commit, with who does it. */
export interface DoneBy extends Planned {
  readonly person: number;
}
