/** Libraries whose records may be copied. */
export const neighbours: readonly string[] = [
  `CREATE TABLE neighbours (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     name TEXT NOT NULL, disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX neighbours_once ON neighbours (name COLLATE NOCASE) WHERE disputed = 0`,
];
