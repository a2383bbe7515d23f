import type { Checker } from '@osier/core/checks';
import type { Kind } from '@osier/core/kinds';
import type { ChangesByKind } from '../store/changes-by-kind';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';

/** Something that is derived from the objects of the store and kept, so that no screen computes it. */
export interface Projection {
  readonly name: string;
  /** Grows when the rule changes: then it is made anew when the store is opened. */
  readonly version: number;
  /** Of which kinds it is made. */
  readonly of: readonly Kind[];
  /**
   * Brings it in line with a change set, in the transaction that writes the rows. What it computes before it first asks the store is computed
   * while others are written; what it asks then is answered when those before it are done. `checker` checks by the rules from before the change set.
   */
  apply(store: Store, changes: ChangesByKind, tx: Transaction, checker: Checker): Promise<void>;
  /** Makes it anew from what stands in the store. May take several transactions; a kill begins it again. */
  rebuild(store: Store): Promise<void>;
}
