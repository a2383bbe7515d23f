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
  /** Brings it in line with a change set, in the transaction that has just written the rows. */
  apply(store: Store, changes: ChangesByKind, tx: Transaction): Promise<void>;
  /** Makes it anew from what stands in the store. May take several transactions; a kill begins it again. */
  rebuild(store: Store): Promise<void>;
}
