/**
 * The database holds what must never be false: what hangs on what (foreign keys), what there is only once (unique indexes),
 * what a value may be (checks). What an older store has that breaks them is marked `disputed` and stands outside the unique
 * indexes until a person has settled it; what hung on nothing hangs on null.
 */

interface Table {
  readonly name: string;
  /** Column definitions of the new table. */
  readonly columns: string;
  /** The columns as they are taken over, in their order. */
  readonly from: string;
  readonly indexes?: readonly string[];
}

/** Makes a table anew with its rows, as SQLite cannot add a foreign key to one that is there. */
const anew = ({ name, columns, from, indexes = [] }: Table): string[] => [
  `CREATE TABLE ${name}_new (${columns})`,
  `INSERT INTO ${name}_new SELECT ${from} FROM ${name}`,
  `DROP TABLE ${name}`,
  `ALTER TABLE ${name}_new RENAME TO ${name}`,
  ...indexes,
];

const OBJECT =
  'id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value))';
const DISPUTED = 'disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1))';
const ref = (table: string) => `REFERENCES ${table} (id) DEFERRABLE INITIALLY DEFERRED`;
/** The number of a parent if it is there, else null. */
const parent = (column: string, table: string) =>
  `CASE WHEN ${column} IN (SELECT id FROM ${table}) THEN ${column} END`;

/** Marks all but the first of the rows that share what there is only once. */
const dispute = (table: string, columns: string, where = '1') =>
  `UPDATE ${table} SET disputed = 1 WHERE ${where} AND id NOT IN (SELECT MIN(id) FROM ${table} WHERE ${where} GROUP BY ${columns})`;

export const invariants: readonly string[] = [
  `ALTER TABLE headings ADD COLUMN vocabulary TEXT NOT NULL DEFAULT ''`,
  `UPDATE headings SET vocabulary = CASE WHEN kind IN ('personal', 'corporate', 'meeting') THEN 'naf' ELSE 'lcsh' END`,
  ...anew({
    name: 'headings',
    columns: `${OBJECT}, kind TEXT NOT NULL, key TEXT NOT NULL, text TEXT NOT NULL, merged_into INTEGER ${ref('headings')}, vocabulary TEXT NOT NULL, ${DISPUTED},
      CHECK (merged_into IS NULL OR merged_into <> id)`,
    from: 'id, version, value, kind, key, text, merged_into, vocabulary, 0',
    indexes: [
      `CREATE INDEX headings_text ON headings (kind, text)`,
      dispute('headings', 'vocabulary, kind, key', 'merged_into IS NULL'),
      `CREATE UNIQUE INDEX headings_once ON headings (vocabulary, kind, key) WHERE merged_into IS NULL AND disputed = 0`,
      `CREATE INDEX headings_merged ON headings (merged_into) WHERE merged_into IS NOT NULL`,
    ],
  }),
  ...anew({
    name: 'distinct_pairs',
    columns: `${OBJECT}, a INTEGER ${ref('headings')}, b INTEGER ${ref('headings')}, ${DISPUTED}, CHECK (a < b OR disputed = 1)`,
    from: `id, version, value, ${parent('a', 'headings')}, ${parent('b', 'headings')},
      NOT (a < b AND a IN (SELECT id FROM headings) AND b IN (SELECT id FROM headings))`,
    indexes: [
      `UPDATE distinct_pairs SET disputed = 1 WHERE disputed = 0 AND id NOT IN (SELECT MIN(id) FROM distinct_pairs WHERE disputed = 0 GROUP BY a, b)`,
      `CREATE UNIQUE INDEX distinct_pairs_once ON distinct_pairs (a, b) WHERE disputed = 0`,
      `CREATE INDEX distinct_pairs_b ON distinct_pairs (b)`,
    ],
  }),
  ...anew({
    name: 'holdings',
    columns: `${OBJECT}, record INTEGER ${ref('records')}, branch TEXT NOT NULL, location TEXT NOT NULL, call_number TEXT NOT NULL, shelf_key TEXT NOT NULL, ${DISPUTED},
      CHECK (record IS NOT NULL OR disputed = 1)`,
    from: `id, version, value, ${parent('record', 'records')}, branch, location, call_number, shelf_key, record NOT IN (SELECT id FROM records)`,
    indexes: [
      `CREATE INDEX holdings_record ON holdings (record, branch)`,
      `CREATE INDEX holdings_branch ON holdings (branch, record)`,
      `CREATE INDEX holdings_shelf ON holdings (branch, shelf_key)`,
      `UPDATE holdings SET disputed = 1 WHERE disputed = 0 AND id NOT IN
         (SELECT MIN(id) FROM holdings WHERE disputed = 0 GROUP BY record, branch, location, call_number)`,
      `CREATE UNIQUE INDEX holdings_once ON holdings (record, branch, location, call_number) WHERE disputed = 0`,
    ],
  }),
  ...anew({
    name: 'copies',
    columns: `${OBJECT}, holding INTEGER ${ref('holdings')}, barcode TEXT NOT NULL UNIQUE, status TEXT NOT NULL, type TEXT NOT NULL, last_seen TEXT NOT NULL,
      number INTEGER NOT NULL CHECK (number >= 0), record INTEGER ${ref('records')}, ${DISPUTED},
      CHECK (disputed = 1 OR (holding IS NOT NULL AND barcode <> ''))`,
    from: `id, version, value, ${parent('holding', 'holdings')}, barcode, status, type, last_seen, COALESCE(json_extract(value, '$.number'), 0),
      (SELECT h.record FROM holdings h WHERE h.id = copies.holding), holding NOT IN (SELECT id FROM holdings) OR barcode = ''`,
    indexes: [
      `CREATE INDEX copies_holding ON copies (holding)`,
      `UPDATE copies SET disputed = 1 WHERE disputed = 0 AND id NOT IN (SELECT MIN(id) FROM copies GROUP BY barcode COLLATE NOCASE)`,
      `UPDATE copies SET disputed = 1 WHERE disputed = 0 AND number > 0 AND record IS NOT NULL AND id NOT IN
         (SELECT MIN(id) FROM copies WHERE disputed = 0 AND number > 0 GROUP BY record, number)`,
      `CREATE UNIQUE INDEX copies_barcode ON copies (barcode COLLATE NOCASE) WHERE disputed = 0`,
      `CREATE UNIQUE INDEX copies_number ON copies (record, number) WHERE disputed = 0 AND number > 0`,
    ],
  }),
  ...anew({
    name: 'piles',
    columns: `${OBJECT}, name TEXT NOT NULL, gone INTEGER NOT NULL DEFAULT 0, ${DISPUTED}`,
    from: 'id, version, value, name, 0, 0',
    indexes: [
      // What lies on a pile that was taken away is kept for its coming back, and so is a row for the pile.
      `INSERT INTO piles (id, version, value, name, gone) SELECT DISTINCT pile, 1, '{"name":"","of":"record","note":"","by":"","madeOn":""}', '', 1
         FROM piled WHERE pile NOT IN (SELECT id FROM piles)`,
      dispute('piles', 'name COLLATE NOCASE', 'gone = 0'),
      `CREATE UNIQUE INDEX piles_name ON piles (name COLLATE NOCASE) WHERE gone = 0 AND disputed = 0`,
    ],
  }),
  ...anew({
    name: 'piled',
    columns: `${OBJECT}, pile INTEGER NOT NULL ${ref('piles')}, kind TEXT NOT NULL CHECK (kind IN ('record', 'copy')), object INTEGER NOT NULL, ${DISPUTED}`,
    from: 'id, version, value, pile, kind, object, 0',
    indexes: [
      dispute('piled', 'pile, kind, object'),
      `CREATE INDEX piled_pile ON piled (pile, kind, object)`,
      `CREATE UNIQUE INDEX piled_once ON piled (pile, kind, object) WHERE disputed = 0`,
    ],
  }),
  ...anew({
    name: 'withdrawal_lists',
    columns: `${OBJECT}, state TEXT NOT NULL CHECK (state IN ('open', 'done')), name TEXT NOT NULL, ${DISPUTED}`,
    from: `id, version, value, state, COALESCE(json_extract(value, '$.name'), ''), 0`,
    indexes: [
      dispute('withdrawal_lists', 'name COLLATE NOCASE', "state = 'open'"),
      `CREATE UNIQUE INDEX withdrawal_lists_name ON withdrawal_lists (name COLLATE NOCASE) WHERE state = 'open' AND disputed = 0`,
    ],
  }),
  ...anew({
    name: 'rolls',
    columns: `${OBJECT}, name TEXT NOT NULL, ${DISPUTED}`,
    from: 'id, version, value, name, 0',
    indexes: [
      dispute('rolls', 'name COLLATE NOCASE'),
      `CREATE UNIQUE INDEX rolls_name ON rolls (name COLLATE NOCASE) WHERE disputed = 0`,
    ],
  }),
  ...anew({
    name: 'sheets',
    columns: `${OBJECT}, name TEXT NOT NULL, ${DISPUTED}`,
    from: 'id, version, value, name, 0',
    indexes: [
      dispute('sheets', 'name COLLATE NOCASE'),
      `CREATE UNIQUE INDEX sheets_name ON sheets (name COLLATE NOCASE) WHERE disputed = 0`,
    ],
  }),
  ...anew({
    name: 'deliveries',
    columns: `${OBJECT}, name TEXT NOT NULL, sha256 TEXT NOT NULL, gone INTEGER NOT NULL DEFAULT 0`,
    from: 'id, version, value, name, sha256, 0',
    indexes: [
      `INSERT INTO deliveries (id, version, value, name, sha256, gone) SELECT DISTINCT delivery, 1, '{}', '', '', 1 FROM
         (SELECT delivery FROM incoming UNION SELECT delivery FROM readings) WHERE delivery NOT IN (SELECT id FROM deliveries)`,
      `CREATE INDEX deliveries_sha256 ON deliveries (sha256)`,
    ],
  }),
  ...anew({
    name: 'readings',
    columns: `delivery INTEGER PRIMARY KEY ${ref('deliveries')}, state TEXT NOT NULL CHECK (state IN ('reading', 'ready', 'failed', 'cancelled')), problem TEXT,
      unreadable INTEGER NOT NULL, repaired INTEGER NOT NULL, since INTEGER NOT NULL DEFAULT 0`,
    from: 'delivery, state, problem, unreadable, repaired, since',
  }),
  ...anew({
    name: 'incoming',
    columns: `${OBJECT}, delivery INTEGER NOT NULL ${ref('deliveries')}, seq INTEGER NOT NULL, state TEXT NOT NULL CHECK (state IN ('waiting', 'accepted', 'skipped')),
      decision TEXT NOT NULL, record INTEGER, copies INTEGER NOT NULL, copy_problems INTEGER NOT NULL, note TEXT NOT NULL`,
    from: 'id, version, value, delivery, seq, state, decision, record, copies, copy_problems, note',
    indexes: [
      `CREATE UNIQUE INDEX incoming_seq ON incoming (delivery, seq)`,
      `CREATE INDEX incoming_counts ON incoming (delivery, state, decision, copies, copy_problems)`,
      `CREATE INDEX incoming_record ON incoming (record) WHERE record IS NOT NULL`,
    ],
  }),
  ...anew({
    name: 'scan_batches',
    columns: `${OBJECT}, stocktake INTEGER ${ref('stocktakes')}`,
    from: `id, version, value, ${parent('stocktake', 'stocktakes')}`,
    indexes: [`CREATE INDEX scan_batches_stocktake ON scan_batches (stocktake)`],
  }),
  // What is disputed is little and is counted often.
  ...[
    'headings',
    'distinct_pairs',
    'holdings',
    'copies',
    'piles',
    'piled',
    'withdrawal_lists',
    'rolls',
    'sheets',
  ].map((table) => `CREATE INDEX ${table}_disputed ON ${table} (id) WHERE disputed = 1`),
  /** Which numbers of a label roll are used (on a copy now, or withdrawn). The number is the key: nobody gets it twice. */
  `CREATE TABLE roll_numbers (number TEXT PRIMARY KEY, roll INTEGER NOT NULL ${ref('rolls')}, serial INTEGER NOT NULL CHECK (serial >= 0)) WITHOUT ROWID`,
  `CREATE UNIQUE INDEX roll_numbers_serial ON roll_numbers (roll, serial)`,
  `ALTER TABLE people ADD COLUMN active INTEGER NOT NULL DEFAULT 1 CHECK (active IN (0, 1))`,
  `ALTER TABLE people ADD COLUMN login_key TEXT`,
  `UPDATE people SET login_key = lower(replace(login, ' ', ''))`,
  `UPDATE people SET login_key = NULL WHERE id NOT IN (SELECT MIN(id) FROM people GROUP BY login_key)`,
  `CREATE UNIQUE INDEX people_login_key ON people (login_key)`,
  `ALTER TABLE jobs ADD COLUMN begun INTEGER NOT NULL DEFAULT 0`,
  /** Rules whose keys are kept, with the version of the rule that made them. */
  `CREATE TABLE key_versions (name TEXT PRIMARY KEY, version INTEGER NOT NULL) WITHOUT ROWID`,
];
