/** Fields that the library adds to its copies, and what copies have in them, folded. */
export const localFields: readonly string[] = [
  `CREATE TABLE local_fields (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     name TEXT NOT NULL, disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX local_fields_once ON local_fields (name COLLATE NOCASE) WHERE disputed = 0`,
  `CREATE INDEX local_fields_disputed ON local_fields (id) WHERE disputed = 1`,
  `CREATE TABLE local_values (copy INTEGER NOT NULL, field INTEGER NOT NULL, value TEXT NOT NULL, PRIMARY KEY (copy, field)) WITHOUT ROWID`,
  `CREATE INDEX local_values_value ON local_values (value, field)`,
  `CREATE INDEX local_values_field ON local_values (field, value)`,
];
