import type { Decision } from '../matching';
import type { MarcRecord } from '../marc';

/** A file of records that arrived. */
export interface Delivery {
  readonly name: string;
  readonly format: 'iso2709' | 'marcxml' | 'json';
  readonly bytes: number;
  readonly sha256: string;
  /** ISO date and time. */
  readonly arrived: string;
}

/** One record of a delivery until it is accepted, and what became of it. */
export interface Incoming {
  readonly delivery: number;
  /** Number in the file, from 1. */
  readonly seq: number;
  /** As it would be accepted now: as read, or as the recipe left it. */
  readonly marc: MarcRecord;
  readonly decision: Decision;
  /** The held record that is replaced. */
  readonly target: number | null;
  readonly state: 'waiting' | 'accepted' | 'skipped';
  /** The record of the catalogue it became. */
  readonly record: number | null;
  /** Name of the recipe that was run over it. */
  readonly recipe: string | null;
}
