const touched = (row: string) =>
  `WHEN EXISTS (SELECT 1 FROM key_versions WHERE name = 'record coming') BEGIN INSERT OR IGNORE INTO records_touched (id) VALUES (${row}.id); END`;

/**
 * A second index of records, which is filled beside the one that is searched when a rule of it changes, and then takes its place.
 * The rule of each access point has a version of its own; keys of titles, which nothing looked for, go.
 */
export const comingKeys: readonly string[] = [
  `CREATE TABLE record_keys_coming (kind TEXT NOT NULL, key TEXT NOT NULL, record INTEGER NOT NULL, PRIMARY KEY (kind, key, record)) WITHOUT ROWID`,
  `CREATE INDEX record_keys_coming_record ON record_keys_coming (record)`,
  `CREATE VIRTUAL TABLE record_words_coming USING fts5 (title, name, subject, rest, content='', contentless_delete=1, tokenize='unicode61 remove_diacritics 2', prefix='2 3')`,
  // Records that are written to while it is filled.
  `CREATE TABLE records_touched (id INTEGER PRIMARY KEY)`,
  `CREATE TRIGGER records_touched_new AFTER INSERT ON records ${touched('NEW')}`,
  `CREATE TRIGGER records_touched_again AFTER UPDATE OF value ON records ${touched('NEW')}`,
  `CREATE TRIGGER records_touched_gone AFTER DELETE ON records ${touched('OLD')}`,
  `INSERT INTO key_versions (name, version) SELECT 'record ' || column1, 1
     FROM (VALUES ('title'), ('name'), ('subject'), ('rest'), ('isbn'), ('issn'), ('control'), ('lccn'), ('number'), ('alike'), ('heading'),
       ('sort'), ('year'), ('language'), ('material'), ('columns'))
    WHERE EXISTS (SELECT 1 FROM key_versions WHERE name = 'record-keys' AND version = 1)`,
  `DELETE FROM key_versions WHERE name = 'record-keys'`,
  `DELETE FROM record_keys WHERE kind = 'title'`,
  // A store of the tenth shape may have been laid down before that shape had it.
  `CREATE INDEX IF NOT EXISTS copies_record ON copies (record, holding)`,
];
