/** Records that may be one, and what became of them: pairs as they are found, pairs kept apart, numbers of merged records. */
const duplicates: readonly string[] = [
  `CREATE TABLE record_leads (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, into_record INTEGER NOT NULL)`,
  `CREATE INDEX record_leads_into ON record_leads (into_record)`,
  `CREATE TABLE apart_records (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, a INTEGER NOT NULL, b INTEGER NOT NULL)`,
  `CREATE UNIQUE INDEX apart_records_once ON apart_records (a, b)`,
  `CREATE TABLE record_pairs (a INTEGER NOT NULL, b INTEGER NOT NULL, strength INTEGER NOT NULL, sure INTEGER NOT NULL, why TEXT NOT NULL, PRIMARY KEY (a, b)) WITHOUT ROWID`,
  `CREATE INDEX record_pairs_b ON record_pairs (b)`,
  `CREATE INDEX record_pairs_order ON record_pairs (sure, strength, a, b)`,
  // Records that wait to be compared.
  `CREATE TABLE records_to_compare (record INTEGER PRIMARY KEY)`,
];

/** Publishers, places and series as records have them, to complete what is typed; the library's own starters. */
export const recordDesk: readonly string[] = [
  `CREATE TABLE used_terms (kind TEXT NOT NULL, key TEXT NOT NULL, text TEXT NOT NULL, n INTEGER NOT NULL, PRIMARY KEY (kind, key, text)) WITHOUT ROWID`,
  `CREATE TABLE starters (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, name TEXT NOT NULL)`,
  ...duplicates,
];
