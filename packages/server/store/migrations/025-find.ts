/** Records by what changed last, call numbers by their place on the shelf, and searches that are kept. */
export const find: readonly string[] = [
  `CREATE INDEX daybook_objects_entry ON daybook_objects (kind, entry, object)`,
  `CREATE INDEX holdings_place ON holdings (shelf_key, record)`,
  `CREATE TABLE saved_searches (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     owner INTEGER NOT NULL, name TEXT NOT NULL, disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX saved_searches_once ON saved_searches (owner, name COLLATE NOCASE) WHERE disputed = 0`,
  `CREATE INDEX saved_searches_disputed ON saved_searches (id) WHERE disputed = 1`,
  // How often each word comes, read from the index of words itself.
  `CREATE VIRTUAL TABLE record_vocabulary USING fts5vocab (record_words, row)`,
];
