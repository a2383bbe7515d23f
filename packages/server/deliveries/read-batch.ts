import type { ProposedCopy } from '@osier/core/holdings';
import type { Description } from '@osier/core/matching';
import type { Key } from './keys';

/** One record as the reading thread hands it over. */
export interface ReadRow {
  readonly seq: number;
  /** Null when it could not be read. */
  readonly record: {
    /** Its fields as they would be accepted (`IncomingFields`): as read, or as the recipe left them. As JSON. */
    readonly fields: string;
    /** The record as it was read, as JSON. */
    readonly original: string;
    readonly title: string;
    readonly author: string;
    readonly isbn: string;
    readonly year: string;
    readonly findings: string;
    readonly errors: number;
    readonly warnings: number;
    readonly advice: number;
    /** Rule and severity of what the checks found before the recipe. */
    readonly before: string;
    readonly description: Description;
    readonly keys: readonly Key[];
    readonly copies: readonly ProposedCopy[];
  } | null;
  readonly repairs: string;
  readonly repairCount: number;
}

/** Records that were read together, or the end of the file. */
export interface Batch {
  readonly rows: readonly ReadRow[];
  /** Bytes of the file read so far. */
  readonly bytes: number;
  readonly end: boolean;
  readonly problem: string | null;
}
