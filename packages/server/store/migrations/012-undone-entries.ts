/** Entries that undo others are found by what they undo. */
export const undoneEntries: readonly string[] = [
  `CREATE INDEX daybook_undoes ON daybook (undoes) WHERE undoes IS NOT NULL`,
];
