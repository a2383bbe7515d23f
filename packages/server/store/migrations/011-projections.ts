/** Adds to one count of the catalogue, from a trigger. */
const count = (name: string, by: string): string => `UPDATE counts SET n = n ${by} WHERE name = '${name}';`;

/** Counts the rows of a table that a condition holds for. */
export const counting = (name: string, table: string, condition = '1'): string[] => {
  const when = (row: string) => condition.replaceAll('$', row);
  return [
    `INSERT INTO counts (name, n) VALUES ('${name}', 0)`,
    `CREATE TRIGGER ${table}_counted AFTER INSERT ON ${table} WHEN ${when('NEW')} BEGIN ${count(name, '+ 1')} END`,
    `CREATE TRIGGER ${table}_uncounted AFTER DELETE ON ${table} WHEN ${when('OLD')} BEGIN ${count(name, '- 1')} END`,
    ...(condition === '1'
      ? []
      : [
          `CREATE TRIGGER ${table}_recounted AFTER UPDATE ON ${table} WHEN (${when('NEW')}) <> (${when('OLD')})
             BEGIN ${count(name, `+ (${when('NEW')}) - (${when('OLD')})`)} END`,
        ]),
  ];
};

const PROBLEM = 'EXISTS (SELECT 1 FROM incoming_fields f WHERE f.id = $.id AND f.errors > 0)';
/** Adds one incoming record to the counts of its delivery, or takes it out. */
const tally = (row: 'NEW' | 'OLD', sign: '+' | '-'): string => {
  const errors = PROBLEM.replace('$', row);
  return `INSERT INTO delivery_counts (delivery, state, decision, n, copies, problems, errors)
      VALUES (${row}.delivery, ${row}.state, ${row}.decision, ${sign}1, ${sign}${row}.copies, ${sign}${row}.copy_problems, ${sign}${errors})
      ON CONFLICT (delivery, state, decision) DO UPDATE SET n = n + excluded.n, copies = copies + excluded.copies,
        problems = problems + excluded.problems, errors = errors + excluded.errors;`;
};
const errorsOf = (row: 'NEW' | 'OLD', by: string): string =>
  `UPDATE delivery_counts SET errors = errors ${by} WHERE (delivery, state, decision) =
     (SELECT i.delivery, i.state, i.decision FROM incoming i WHERE i.id = ${row}.id);`;

/** What is derived and kept, so that a screen costs what is on it. Counts are kept by the database itself, so that bulk rows count too. */
export const projections: readonly string[] = [
  `CREATE TABLE counts (name TEXT PRIMARY KEY, n INTEGER NOT NULL) WITHOUT ROWID`,
  ...counting('records', 'records'),
  ...counting('copies', 'copies'),
  ...counting('headings', 'headings', '$.merged_into IS NULL'),
  `CREATE TABLE delivery_counts (delivery INTEGER NOT NULL, state TEXT NOT NULL, decision TEXT NOT NULL, n INTEGER NOT NULL, copies INTEGER NOT NULL,
     problems INTEGER NOT NULL, errors INTEGER NOT NULL, PRIMARY KEY (delivery, state, decision)) WITHOUT ROWID`,
  `CREATE TRIGGER incoming_counted AFTER INSERT ON incoming BEGIN ${tally('NEW', '+')} END`,
  `CREATE TRIGGER incoming_uncounted AFTER DELETE ON incoming BEGIN ${tally('OLD', '-')} END`,
  `CREATE TRIGGER incoming_recounted AFTER UPDATE OF delivery, state, decision, copies, copy_problems ON incoming BEGIN ${tally('OLD', '-')} ${tally('NEW', '+')} END`,
  `CREATE TRIGGER errors_counted AFTER INSERT ON incoming_fields WHEN NEW.errors > 0 BEGIN ${errorsOf('NEW', '+ 1')} END`,
  `CREATE TRIGGER errors_uncounted AFTER DELETE ON incoming_fields WHEN OLD.errors > 0 BEGIN ${errorsOf('OLD', '- 1')} END`,
  `CREATE TRIGGER errors_recounted AFTER UPDATE OF errors ON incoming_fields WHEN (NEW.errors > 0) <> (OLD.errors > 0)
     BEGIN ${errorsOf('NEW', '+ (NEW.errors > 0) - (OLD.errors > 0)')} END`,
  /** How many records carry a heading, by group and key. */
  `CREATE TABLE heading_use (kind TEXT NOT NULL, key TEXT NOT NULL, n INTEGER NOT NULL, PRIMARY KEY (kind, key)) WITHOUT ROWID`,
  /** Names that may be one person's: under which buckets each is compared, which pairs were found, and what must be looked at anew. */
  `CREATE TABLE alike_names (heading INTEGER PRIMARY KEY, name TEXT NOT NULL)`,
  `CREATE TABLE alike_buckets (bucket TEXT NOT NULL, heading INTEGER NOT NULL, PRIMARY KEY (bucket, heading)) WITHOUT ROWID`,
  `CREATE INDEX alike_buckets_heading ON alike_buckets (heading)`,
  `CREATE TABLE alike_pairs (a INTEGER NOT NULL, b INTEGER NOT NULL, score REAL NOT NULL, why TEXT NOT NULL, PRIMARY KEY (a, b), CHECK (a < b)) WITHOUT ROWID`,
  `CREATE INDEX alike_pairs_b ON alike_pairs (b)`,
  `CREATE TABLE alike_groups (id INTEGER PRIMARY KEY, score REAL NOT NULL, members TEXT NOT NULL)`,
  `CREATE INDEX alike_groups_score ON alike_groups (score DESC, id)`,
  `CREATE TABLE alike_members (heading INTEGER PRIMARY KEY, alike_group INTEGER NOT NULL)`,
  `CREATE INDEX alike_members_group ON alike_members (alike_group)`,
  `CREATE TABLE alike_dirty (heading INTEGER PRIMARY KEY)`,
  ...counting('look-alikes', 'alike_groups'),
  /** The copies that a stocktake expects, fixed when it starts; which codes were scanned; how it stands. */
  `CREATE TABLE stocktake_expected (stocktake INTEGER NOT NULL, copy INTEGER NOT NULL, barcode TEXT NOT NULL, shelf_key TEXT NOT NULL,
     PRIMARY KEY (stocktake, copy)) WITHOUT ROWID`,
  `CREATE INDEX stocktake_expected_barcode ON stocktake_expected (stocktake, barcode)`,
  `CREATE INDEX stocktake_expected_shelf ON stocktake_expected (stocktake, shelf_key, barcode)`,
  `CREATE TABLE stocktake_seen (stocktake INTEGER NOT NULL, code TEXT NOT NULL, first INTEGER NOT NULL, times INTEGER NOT NULL, PRIMARY KEY (stocktake, code)) WITHOUT ROWID`,
  `CREATE INDEX stocktake_seen_first ON stocktake_seen (stocktake, first)`,
  `CREATE TABLE stocktake_state (stocktake INTEGER PRIMARY KEY, expected INTEGER NOT NULL, found INTEGER NOT NULL, scans INTEGER NOT NULL,
     findings INTEGER, result TEXT)`,
  /** Where a scan comes from, so that sending it again never doubles it. */
  `ALTER TABLE scans ADD COLUMN device TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE scans ADD COLUMN run TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE scans ADD COLUMN number INTEGER NOT NULL DEFAULT 0`,
  `CREATE UNIQUE INDEX scans_once ON scans (purpose, work, device, run, number) WHERE device <> ''`,
];
