import { update, type ChangeSet, type Versioned } from '../changes';
import type { ProposedCopy } from '../holdings';
import type { FileFormat, MarcRecord } from '../marc';
import type { Outcome } from '../matching';
import type { DeliverySettings } from './sheet';

/** A file of records that arrived. */
export interface Delivery {
  readonly name: string;
  readonly format: FileFormat;
  readonly bytes: number;
  readonly sha256: string;
  /** ISO date and time. */
  readonly arrived: string;
  /** The supplier sheet that its settings come from, and why it was chosen; null for none. */
  readonly sheet: { readonly id: number; readonly name: string; readonly why: string } | null;
  readonly settings: DeliverySettings;
}

/** What is decided about one record of a delivery, and what became of it. Its fields are kept beside it, under the same id. */
export interface Incoming {
  readonly delivery: number;
  /** Number in the file, from 1. */
  readonly seq: number;
  readonly decision: Outcome;
  /** Whether a person chose the decision; what a rule chose is chosen anew when the rule changes. */
  readonly chosen: boolean;
  /** The held record that is replaced, merged into, or gets the copies. */
  readonly target: number | null;
  readonly state: 'waiting' | 'accepted' | 'skipped';
  /** The record of the catalogue it became. */
  readonly record: number | null;
  /** The copies that are made with it; their barcodes once they are made. */
  readonly copies: readonly ProposedCopy[];
  readonly note: string;
  /** How often its fields were changed: counted here, so that what was planned with other fields no longer fits. */
  readonly edits: number;
}

/** The fields of an incoming record. */
export interface IncomingFields {
  /** As it would be accepted now: as read, or as the recipe or a person left it. */
  readonly marc: MarcRecord;
  /** Name of the recipe that was run over it. */
  readonly recipe: string | null;
}

/** An incoming record with its fields. */
export interface IncomingRecord extends Versioned<Incoming> {
  readonly fields: Versioned<IncomingFields>;
}

/** The two changes by which an incoming record gets other fields. */
export const withFields = (
  row: IncomingRecord,
  fields: IncomingFields,
  value: Incoming = row.value,
): ChangeSet => [
  update<Incoming>('incoming', row, { ...value, edits: row.value.edits + 1 }),
  update<IncomingFields>('fields', row.fields, fields),
];
