/** Brief records, since when each waits for its full one, and what a neighbour offered for it. */
export const briefRecords: readonly string[] = [
  `CREATE TABLE brief_records (record INTEGER PRIMARY KEY, since TEXT NOT NULL, asked TEXT NOT NULL, state TEXT NOT NULL, reason TEXT NOT NULL,
     neighbour INTEGER NOT NULL, marc TEXT CHECK (marc IS NULL OR json_valid(marc)), refused TEXT NOT NULL CHECK (json_valid(refused)))`,
  `CREATE INDEX brief_records_state ON brief_records (state, record)`,
  `CREATE INDEX brief_records_since ON brief_records (since, record)`,
];
