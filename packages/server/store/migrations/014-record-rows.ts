/** Adds to the count of a facet's value, from a trigger. */
const count = (facet: string, value: string, by: string): string =>
  `INSERT INTO facet_counts (facet, value, n) VALUES ('${facet}', ${value}, ${by}) ON CONFLICT (facet, value) DO UPDATE SET n = n + excluded.n;`;
const ofRecord = (row: string, by: string): string =>
  count('language', `${row}.language`, by) + count('material', `${row}.material`, by);
/** Whether a record has no other holding at the branch of a row. */
const only = (row: string): string =>
  `NOT EXISTS (SELECT 1 FROM holdings h WHERE h.record = ${row}.record AND h.branch = ${row}.branch AND h.id <> ${row}.id)`;

/** What lists show, sort and count of a record, in a narrow table of its own; the indexes that stood in for it go. */
export const recordRows: readonly string[] = [
  `CREATE TABLE record_rows (id INTEGER PRIMARY KEY, sort TEXT NOT NULL, title TEXT NOT NULL, author TEXT NOT NULL, year TEXT NOT NULL,
     isbn TEXT NOT NULL, publisher TEXT NOT NULL, edition TEXT NOT NULL, language TEXT NOT NULL, material TEXT NOT NULL)`,
  `CREATE INDEX record_rows_sort ON record_rows (sort, id)`,
  `CREATE INDEX record_rows_kinds ON record_rows (language, material)`,
  /** How many records of the whole catalogue there are under each facet. */
  `CREATE TABLE facet_counts (facet TEXT NOT NULL, value TEXT NOT NULL, n INTEGER NOT NULL, PRIMARY KEY (facet, value)) WITHOUT ROWID`,
  `CREATE TRIGGER record_rows_counted AFTER INSERT ON record_rows BEGIN ${ofRecord('NEW', '1')} END`,
  `CREATE TRIGGER record_rows_uncounted AFTER DELETE ON record_rows BEGIN ${ofRecord('OLD', '-1')} END`,
  `CREATE TRIGGER holdings_counted AFTER INSERT ON holdings WHEN ${only('NEW')} BEGIN ${count('branch', 'NEW.branch', '1')} END`,
  `CREATE TRIGGER holdings_uncounted AFTER DELETE ON holdings WHEN ${only('OLD')} BEGIN ${count('branch', 'OLD.branch', '-1')} END`,
  `CREATE TRIGGER holdings_moved_from AFTER UPDATE OF record, branch ON holdings
     WHEN (OLD.record, OLD.branch) <> (NEW.record, NEW.branch) AND ${only('OLD')} BEGIN ${count('branch', 'OLD.branch', '-1')} END`,
  `CREATE TRIGGER holdings_moved_to AFTER UPDATE OF record, branch ON holdings
     WHEN (OLD.record, OLD.branch) <> (NEW.record, NEW.branch) AND ${only('NEW')} BEGIN ${count('branch', 'NEW.branch', '1')} END`,
  `DROP INDEX records_sort`,
  `DROP INDEX records_facets`,
  `DROP INDEX records_kinds`,
  `CREATE INDEX headings_by_text ON headings (text COLLATE NOCASE, id) WHERE merged_into IS NULL`,
];
