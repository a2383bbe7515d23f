/** How often copies were lent, and when last: what nobody has loaded is not known. */
export const loanFigureColumns: readonly string[] = [
  `ALTER TABLE copies ADD COLUMN loans INTEGER`,
  `ALTER TABLE copies ADD COLUMN last_loan TEXT NOT NULL DEFAULT ''`,
  `CREATE INDEX copies_loans ON copies (ifnull(loans, -1), id)`,
  `CREATE INDEX copies_price ON copies (ifnull(price, -1), id)`,
  `CREATE INDEX copies_last_loan ON copies (last_loan, id)`,
];
