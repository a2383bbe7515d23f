/** Libraries whose records may be copied. */
export const neighbours: readonly string[] = [
  `CREATE TABLE neighbours (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     name TEXT NOT NULL, disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX neighbours_once ON neighbours (name COLLATE NOCASE) WHERE disputed = 0`,
  // Books that are looked for together, and what was found of each.
  `CREATE TABLE book_lists (id INTEGER PRIMARY KEY, name TEXT NOT NULL, at TEXT NOT NULL, person INTEGER NOT NULL)`,
  `CREATE TABLE book_list_rows (list INTEGER NOT NULL REFERENCES book_lists (id) ON DELETE CASCADE, seq INTEGER NOT NULL, code TEXT NOT NULL, isbn TEXT NOT NULL,
     state TEXT NOT NULL, reason TEXT NOT NULL, title TEXT NOT NULL, neighbour INTEGER NOT NULL, asked TEXT NOT NULL CHECK (json_valid(asked)), marc TEXT CHECK (marc IS NULL OR json_valid(marc)),
     delivery INTEGER NOT NULL, PRIMARY KEY (list, seq)) WITHOUT ROWID`,
];
