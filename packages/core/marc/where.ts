/** A place in a record: a field by its index, a subfield by its index, a range of characters in its text. */
export interface Where {
  /** Index into `record.fields`; -1 is the leader. */
  readonly field: number;
  readonly tag: string;
  /** Occurrence of the tag, from 0. */
  readonly occurrence: number;
  /** Index into `subfields`, with its code. */
  readonly subfield?: number;
  readonly code?: string;
  readonly start?: number;
  readonly end?: number;
}
