/** Fields that the library adds to its copies, and what copies have in them, as it is and folded; sheets of labels, and up to which entry each person has printed labels. */
export const localFields: readonly string[] = [
  `CREATE TABLE local_fields (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     name TEXT NOT NULL, disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX local_fields_once ON local_fields (name COLLATE NOCASE) WHERE disputed = 0`,
  `CREATE INDEX local_fields_disputed ON local_fields (id) WHERE disputed = 1`,
  `CREATE TABLE local_values (copy INTEGER NOT NULL, field INTEGER NOT NULL, exact TEXT NOT NULL, value TEXT NOT NULL,
     PRIMARY KEY (copy, field)) WITHOUT ROWID`,
  `CREATE INDEX local_values_value ON local_values (value, field)`,
  `CREATE INDEX local_values_field ON local_values (field, exact, value)`,
  `CREATE INDEX withdrawn_record ON withdrawn (record)`,
  `CREATE TABLE label_sheets (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     name TEXT NOT NULL, disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX label_sheets_once ON label_sheets (name COLLATE NOCASE) WHERE disputed = 0`,
  `CREATE INDEX label_sheets_disputed ON label_sheets (id) WHERE disputed = 1`,
  // What the registry says otherwise of headings that have a number there, as it was asked last.
  `CREATE TABLE registry_news (heading INTEGER PRIMARY KEY, says TEXT NOT NULL, form TEXT NOT NULL, number TEXT NOT NULL, at TEXT NOT NULL)`,
  `CREATE TABLE label_prints (person INTEGER NOT NULL, kind TEXT NOT NULL, entry INTEGER NOT NULL, at TEXT NOT NULL, PRIMARY KEY (person, kind)) WITHOUT ROWID`,
];
