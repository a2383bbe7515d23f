/** Web addresses of records, what trying them found, and records that the public does not see. */
export const links: readonly string[] = [
  `CREATE TABLE record_links (record INTEGER NOT NULL, url TEXT NOT NULL, PRIMARY KEY (record, url)) WITHOUT ROWID`,
  `CREATE INDEX record_links_url ON record_links (url, record)`,
  `CREATE TABLE link_checks (url TEXT PRIMARY KEY, at TEXT NOT NULL, result TEXT NOT NULL, status INTEGER, moved_to TEXT NOT NULL) WITHOUT ROWID`,
  `CREATE INDEX link_checks_result ON link_checks (result, url)`,
  `CREATE TABLE suppressed (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL)`,
];
