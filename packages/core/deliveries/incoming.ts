import type { ProposedCopy } from '../holdings';
import type { MarcRecord } from '../marc';
import type { Outcome } from '../matching';
import type { DeliverySettings } from './sheet';

/** A file of records that arrived. */
export interface Delivery {
  readonly name: string;
  readonly format: 'iso2709' | 'marcxml' | 'json';
  readonly bytes: number;
  readonly sha256: string;
  /** ISO date and time. */
  readonly arrived: string;
  /** The supplier sheet that its settings come from, and why it was chosen; null for none. */
  readonly sheet: { readonly id: number; readonly name: string; readonly why: string } | null;
  readonly settings: DeliverySettings;
}

/** One record of a delivery until it is accepted, and what became of it. */
export interface Incoming {
  readonly delivery: number;
  /** Number in the file, from 1. */
  readonly seq: number;
  /** As it would be accepted now: as read, or as the recipe left it. */
  readonly marc: MarcRecord;
  readonly decision: Outcome;
  /** Whether a person chose the decision; what a rule chose is chosen anew when the rule changes. */
  readonly chosen: boolean;
  /** The held record that is replaced, merged into, or gets the copies. */
  readonly target: number | null;
  readonly state: 'waiting' | 'accepted' | 'skipped';
  /** The record of the catalogue it became. */
  readonly record: number | null;
  /** Name of the recipe that was run over it. */
  readonly recipe: string | null;
  /** The copies that are made with it; their barcodes once they are made. */
  readonly copies: readonly ProposedCopy[];
  readonly note: string;
}
