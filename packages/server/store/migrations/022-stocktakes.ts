const STATES: readonly (readonly [string, string])[] = [
  ['out-of-order', 'misplaced'],
  ['should-not-be-here', 'away'],
  ['not-found', 'missing'],
];
/** The states of spines by their names of today. */
const spines = STATES.reduce(
  (sql, [from, to]) => `replace(${sql}, '"state":"${from}"', '"state":"${to}"')`,
  `json_extract(t.result, '$.result.spines')`,
);

/** What a closed stocktake kept of a finding, as it is kept today. */
const KEPT_FINDING = `json_object('kind', CASE f.value ->> 'kind' WHEN 'out-of-order' THEN 'misplaced' WHEN 'unknown' THEN 'unknown'
    ELSE CASE WHEN f.value ->> 'message' LIKE 'Belongs%' THEN 'elsewhere' ELSE 'found' END END,
  'code', f.value ->> 'code', 'copy', f.value ->> '$.copy.copyId', 'record', f.value ->> '$.copy.recordId',
  'title', ifnull(f.value ->> '$.copy.title', ''), 'callNumber', ifnull(f.value ->> '$.copy.callNumber', ''),
  'location', ifnull(f.value ->> '$.copy.location', ''), 'message', f.value ->> 'message',
  'acts', json_array('done'), 'others', json(ifnull(f.value -> 'near', '[]')), 'count', 1)`;

/**
 * Stocktakes that are reckoned beside the scanning: the copies with what is told of them and what became of each, walks as runs, findings
 * with all that they say, the picture of each walk in pieces, what the loans desk said, and what was settled.
 */
export const stocktakes: readonly string[] = [
  `CREATE TABLE settled_findings (id INTEGER PRIMARY KEY, version INTEGER NOT NULL CHECK (version > 0), value TEXT NOT NULL CHECK (json_valid(value)),
     stocktake INTEGER NOT NULL REFERENCES stocktakes (id) DEFERRABLE INITIALLY DEFERRED, finding TEXT NOT NULL, code TEXT NOT NULL,
     disputed INTEGER NOT NULL DEFAULT 0 CHECK (disputed IN (0, 1)))`,
  `CREATE UNIQUE INDEX settled_findings_once ON settled_findings (stocktake, finding, code) WHERE disputed = 0`,
  `CREATE TABLE stocktake_expected_new (stocktake INTEGER NOT NULL, copy INTEGER NOT NULL, barcode TEXT NOT NULL, shelf_key TEXT NOT NULL,
     branch TEXT NOT NULL, location TEXT NOT NULL, type TEXT NOT NULL, call_number TEXT NOT NULL, title TEXT NOT NULL, author TEXT NOT NULL, record INTEGER NOT NULL,
     counts INTEGER NOT NULL, outcome INTEGER NOT NULL, PRIMARY KEY (stocktake, copy)) WITHOUT ROWID`,
  `INSERT INTO stocktake_expected_new SELECT e.stocktake, e.copy, e.barcode, e.shelf_key, ifnull(h.branch, ''), ifnull(h.location, ''), ifnull(c.type, ''),
     ifnull(h.call_number, ''), ifnull(r.title, ''), ifnull(r.author, ''), ifnull(h.record, 0), 1,
     CASE WHEN EXISTS (SELECT 1 FROM stocktake_seen s WHERE s.stocktake = e.stocktake AND s.code = e.barcode) THEN 0 ELSE 5 END
     FROM stocktake_expected e LEFT JOIN copies c ON c.id = e.copy LEFT JOIN holdings h ON h.id = c.holding LEFT JOIN record_rows r ON r.id = h.record`,
  `DROP TABLE stocktake_expected`,
  `ALTER TABLE stocktake_expected_new RENAME TO stocktake_expected`,
  `CREATE INDEX stocktake_expected_barcode ON stocktake_expected (stocktake, barcode)`,
  `CREATE INDEX stocktake_expected_shelf ON stocktake_expected (stocktake, shelf_key, barcode)`,
  `CREATE INDEX stocktake_expected_outcome ON stocktake_expected (stocktake, outcome, shelf_key, barcode)`,
  `CREATE INDEX stocktake_expected_author ON stocktake_expected (stocktake, author, shelf_key) WHERE author <> ''`,
  `CREATE INDEX stocktake_expected_copy ON stocktake_expected (copy, stocktake)`,
  `CREATE TABLE stocktake_findings (stocktake INTEGER NOT NULL, kind TEXT NOT NULL, code TEXT NOT NULL, place INTEGER NOT NULL, detail TEXT NOT NULL,
     PRIMARY KEY (stocktake, kind, code)) WITHOUT ROWID`,
  `CREATE INDEX stocktake_findings_place ON stocktake_findings (stocktake, kind, place, code)`,
  `CREATE TABLE stocktake_runs (id INTEGER PRIMARY KEY, stocktake INTEGER NOT NULL, device TEXT NOT NULL, run TEXT NOT NULL, file INTEGER NOT NULL,
     name TEXT NOT NULL, location TEXT NOT NULL, person INTEGER NOT NULL, scans INTEGER NOT NULL, began TEXT NOT NULL, ended TEXT NOT NULL)`,
  `CREATE UNIQUE INDEX stocktake_runs_once ON stocktake_runs (stocktake, device, run, file)`,
  `CREATE TABLE stocktake_spines (stocktake INTEGER NOT NULL, run INTEGER NOT NULL, part INTEGER NOT NULL, digest TEXT NOT NULL, states TEXT NOT NULL, spines TEXT NOT NULL,
     PRIMARY KEY (stocktake, run, part)) WITHOUT ROWID`,
  `CREATE TABLE stocktake_loans (stocktake INTEGER NOT NULL, barcode TEXT NOT NULL, state TEXT NOT NULL, due TEXT NOT NULL, at TEXT NOT NULL,
     PRIMARY KEY (stocktake, barcode)) WITHOUT ROWID`,
  // Since when it is to be reckoned, and when it was scanned last (milliseconds; 0 for none).
  `CREATE TABLE stocktake_dirty (stocktake INTEGER PRIMARY KEY, stamp INTEGER NOT NULL, since INTEGER NOT NULL, scanned INTEGER NOT NULL)`,
  `ALTER TABLE people ADD COLUMN rights TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(rights))`,
  `ALTER TABLE stocktake_seen ADD COLUMN day TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE scans ADD COLUMN location TEXT NOT NULL DEFAULT ''`,
  // What closed stocktakes have kept.
  `UPDATE stocktake_expected SET outcome = 1 WHERE EXISTS (SELECT 1 FROM stocktake_state t, json_each(t.result, '$.result.findings') f
     WHERE t.stocktake = stocktake_expected.stocktake AND f.value ->> 'kind' = 'not-found' AND f.value ->> 'code' = stocktake_expected.barcode)`,
  `INSERT OR IGNORE INTO stocktake_findings SELECT t.stocktake, ${KEPT_FINDING} ->> 'kind', f.value ->> 'code', f.key, ${KEPT_FINDING}
     FROM stocktake_state t, json_each(t.result, '$.result.findings') f WHERE f.value ->> 'kind' <> 'not-found'`,
  `INSERT INTO stocktake_spines SELECT t.stocktake, 0, 0, '', '{}', ${spines} FROM stocktake_state t WHERE json_array_length(t.result, '$.result.spines') > 0`,
  `UPDATE stocktake_state SET result = NULL WHERE result IS NOT NULL`,
];
