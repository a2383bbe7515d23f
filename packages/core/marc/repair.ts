/** What a reader had to mend, at a byte offset of the file. */
export interface Repair {
  readonly code: RepairCode;
  /** Byte offset in the file; for XML and JSON the character at which the record begins. */
  readonly offset: number;
  readonly message: string;
  /** False when something could not be kept. */
  readonly repaired: boolean;
  /** What could not be kept, as it stood in the file. */
  readonly bytes?: Uint8Array;
}

export type RepairCode =
  | 'record-length'
  | 'record-terminator'
  | 'truncated'
  | 'junk-between'
  | 'byte-order-mark'
  | 'base-address'
  | 'directory'
  | 'directory-end'
  | 'leader'
  | 'indicators'
  | 'no-delimiter'
  | 'empty-delimiter'
  | 'stray-delimiter'
  | 'field-terminator'
  | 'tag'
  | 'control-subfields'
  | 'nul-bytes'
  | 'charset-claim'
  | 'bad-bytes'
  | 'twice-encoded'
  | 'too-long'
  | 'xml'
  | 'table'
  | 'unreadable';

/** A record as read from a file: the value, or null when nothing of it could be read. */
export interface ReadRecord {
  readonly record: MarcRecordOrNull;
  /** Byte offset and length of the record in the file. */
  readonly offset: number;
  readonly length: number;
  readonly repairs: readonly Repair[];
}
type MarcRecordOrNull = import('./record').MarcRecord | null;
