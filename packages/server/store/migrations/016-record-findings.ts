const count = (row: 'NEW' | 'OLD', by: 1 | -1): string =>
  `INSERT INTO finding_counts (rule, n) VALUES (${row}.rule, ${by}) ON CONFLICT (rule) DO UPDATE SET n = n + excluded.n;`;

/** What the checks find in the records of the catalogue, kept by record and rule, and counted by rule. */
export const recordFindings: readonly string[] = [
  `CREATE TABLE record_findings (record INTEGER NOT NULL, rule TEXT NOT NULL, severity TEXT NOT NULL, PRIMARY KEY (record, rule)) WITHOUT ROWID`,
  `CREATE INDEX record_findings_rule ON record_findings (rule, record)`,
  `CREATE TABLE finding_counts (rule TEXT PRIMARY KEY, n INTEGER NOT NULL) WITHOUT ROWID`,
  `CREATE TRIGGER record_findings_counted AFTER INSERT ON record_findings BEGIN ${count('NEW', 1)} END`,
  `CREATE TRIGGER record_findings_uncounted AFTER DELETE ON record_findings BEGIN ${count('OLD', -1)} END`,
  // An empty store has no findings; any other is checked after it is opened, while people work.
  `INSERT INTO key_versions (name, version) VALUES ('record-findings-applied', 1)`,
  `INSERT INTO key_versions (name, version) SELECT 'record-findings', 1 WHERE NOT EXISTS (SELECT 1 FROM records)`,
];
