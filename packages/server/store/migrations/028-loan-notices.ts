/** The loans desk is told of more than withdrawals: each notice says what became of the copy, and on which day. */
export const loanNotices: readonly string[] = [
  `ALTER TABLE loans_to_tell RENAME TO loans_to_tell_before`,
  `CREATE TABLE loans_to_tell (source TEXT NOT NULL, row INTEGER NOT NULL, barcode TEXT NOT NULL, says TEXT NOT NULL, day TEXT NOT NULL DEFAULT '',
     refused TEXT NOT NULL DEFAULT '', PRIMARY KEY (source, row)) WITHOUT ROWID`,
  `INSERT INTO loans_to_tell (source, row, barcode, says, refused)
     SELECT 'withdrawn', row, barcode, CASE WHEN is_gone THEN 'gone' ELSE 'back' END, refused FROM loans_to_tell_before`,
  `DROP TABLE loans_to_tell_before`,
];
