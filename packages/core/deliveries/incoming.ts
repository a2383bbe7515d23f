import { update, type ChangeOf, type Id, type Versioned } from '../changes';
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
  /** The supplier sheet that its settings come from, and why it was chosen; null for none. Absent in old stores. */
  readonly sheet?: { readonly id: Id<'sheet'>; readonly name: string; readonly why: string } | null;
  /** Absent in old stores: the defaults. */
  readonly settings?: DeliverySettings;
}

/** What is decided about one record of a delivery, and what became of it. Its fields are kept beside it, under the same id. */
export interface Incoming {
  readonly delivery: Id<'delivery'>;
  /** Number in the file, from 1. */
  readonly seq: number;
  readonly decision: Outcome;
  /** Whether a person chose the decision; what a rule chose is chosen anew when the rule changes. */
  readonly chosen: boolean;
  /** The held record that is replaced, merged into, or gets the copies. */
  readonly target: Id<'record'> | null;
  readonly state: 'waiting' | 'accepted' | 'skipped';
  /** The record of the catalogue it became. */
  readonly record: Id<'record'> | null;
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
export interface IncomingRecord extends Versioned<Incoming, 'incoming'> {
  readonly fields: Versioned<IncomingFields, 'fields'>;
}

/** The number under which the fields of an incoming record are kept: its own. */
export const fieldsIdOf = (incoming: number): Id<'fields'> => incoming;

/** The two changes by which an incoming record gets other fields. */
export const withFields = (
  row: IncomingRecord,
  fields: IncomingFields,
  value: Incoming = row.value,
): [ChangeOf<'incoming', Incoming>, ChangeOf<'fields', IncomingFields>] => [
  update('incoming', row, { ...value, edits: row.value.edits + 1 }),
  update('fields', row.fields, fields),
];
