/** Publishers, places and series as records have them, to complete what is typed; the library's own starters. */
export const recordDesk: readonly string[] = [
  `CREATE TABLE used_terms (kind TEXT NOT NULL, key TEXT NOT NULL, text TEXT NOT NULL, n INTEGER NOT NULL, PRIMARY KEY (kind, key, text)) WITHOUT ROWID`,
  `CREATE TABLE starters (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, name TEXT NOT NULL)`,
];
