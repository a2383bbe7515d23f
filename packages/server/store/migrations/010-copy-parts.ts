/** Copies are numbered within the part or volume that they are of. Copies from before are of the whole title. */
export const copyParts: readonly string[] = [
  `ALTER TABLE copies ADD COLUMN part TEXT NOT NULL DEFAULT ''`,
  `DROP INDEX copies_number`,
  `CREATE UNIQUE INDEX copies_number ON copies (record, part, number) WHERE disputed = 0 AND number > 0`,
  `CREATE INDEX copies_record ON copies (record, holding)`,
];
