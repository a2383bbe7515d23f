/** Lists of records by name, year and number, and by what copies they have; the daybook by person, act and time. */
export const listOrders: readonly string[] = [
  `ALTER TABLE records ADD COLUMN filing_name TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE record_rows ADD COLUMN filing_name TEXT NOT NULL DEFAULT ''`,
  `CREATE INDEX record_rows_name ON record_rows (filing_name, id)`,
  `CREATE INDEX record_rows_year ON record_rows (year, id)`,
  `CREATE INDEX copies_status ON copies (status, record)`,
  `CREATE INDEX copies_type ON copies (type, record)`,
  `CREATE INDEX daybook_person ON daybook (person, id)`,
  `CREATE INDEX daybook_act ON daybook (act, id)`,
  `CREATE INDEX daybook_at ON daybook (at)`,
  // The records that are there have no filing name yet; they get one after the store is opened, while people work.
  `INSERT INTO key_versions (name, version) SELECT 'record filing_name', 1 WHERE NOT EXISTS (SELECT 1 FROM records)`,
];
