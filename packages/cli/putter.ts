import type { MarcRecord } from '@osier/core/marc';
import type { Building } from './building';

/** Writes what becomes of records, one by one or a few at a time; `rest` writes what it has not written yet. */
export interface Putter {
  /** False for a record of which nothing is written. */
  put(record: MarcRecord, number: number, out: Building, fixed: Building): boolean | void;
  rest?(out: Building, fixed: Building): void;
}
