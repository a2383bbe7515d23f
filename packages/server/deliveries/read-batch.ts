import type { MarcRecord } from '@osier/core/marc';

/** One record as the reading thread hands it over; without `marc` it could not be read. */
export interface ReadRow {
  readonly seq: number;
  readonly marc: MarcRecord | null;
  readonly repairs: string;
  readonly repairCount: number;
  readonly offset: number;
  readonly title?: string;
  readonly author?: string;
  readonly isbn?: string;
  readonly year?: string;
  readonly findings?: string;
  readonly errors?: number;
  readonly warnings?: number;
  readonly advice?: number;
  readonly keys?: readonly (readonly [string, string])[];
  readonly barcodes?: readonly string[];
}

export interface Batch {
  readonly rows: readonly ReadRow[];
  /** Bytes of the file read so far. */
  readonly bytes: number;
  readonly end: boolean;
  readonly problem: string | null;
}
