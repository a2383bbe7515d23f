/** One field's place in a record, offsets counted from the record's first byte; `end` includes the field terminator. */
export interface Slot {
  readonly tag: string;
  readonly start: number;
  readonly end: number;
}
