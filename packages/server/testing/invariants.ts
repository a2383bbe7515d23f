import { serialIn } from '@osier/core/barcodes';
import type { Store } from '../store/store';

/** What must never be found, each as a query that gives a row for every breach. */
const NEVER: Readonly<Record<string, string>> = {
  'hangs on what is not there': 'SELECT "table" AS t, rowid AS id FROM pragma_foreign_key_check',
  'a holding without a record':
    'SELECT id FROM holdings WHERE record IS NULL OR record NOT IN (SELECT id FROM records)',
  'a copy without a holding':
    'SELECT id FROM copies WHERE holding IS NULL OR holding NOT IN (SELECT id FROM holdings)',
  'a copy counted with another record than its holding':
    'SELECT c.id FROM copies c JOIN holdings h ON h.id = c.holding WHERE c.record IS NOT h.record',
  'a barcode twice': 'SELECT upper(barcode) AS b FROM copies GROUP BY 1 HAVING COUNT(*) > 1',
  'a copy number twice':
    'SELECT record, part, number FROM copies WHERE number > 0 GROUP BY 1, 2, 3 HAVING COUNT(*) > 1',
  'a holding twice':
    'SELECT record FROM holdings GROUP BY record, branch, location, call_number HAVING COUNT(*) > 1',
  'a heading twice':
    'SELECT key FROM headings WHERE merged_into IS NULL GROUP BY vocabulary, kind, key HAVING COUNT(*) > 1',
  'a pile name twice': 'SELECT upper(name) AS n FROM piles WHERE gone = 0 GROUP BY 1 HAVING COUNT(*) > 1',
  'a list name twice':
    "SELECT upper(name) AS n FROM withdrawal_lists WHERE state = 'open' GROUP BY 1 HAVING COUNT(*) > 1",
  'a thing twice on a pile': 'SELECT pile FROM piled GROUP BY pile, kind, object HAVING COUNT(*) > 1',
  'a pair kept apart twice': 'SELECT a FROM distinct_pairs GROUP BY a, b HAVING COUNT(*) > 1',
  'a heading kept apart from itself': 'SELECT id FROM distinct_pairs WHERE a >= b',
  'something disputed':
    'SELECT id FROM copies WHERE disputed = 1 UNION ALL SELECT id FROM holdings WHERE disputed = 1 UNION ALL SELECT id FROM headings WHERE disputed = 1 UNION ALL SELECT id FROM piles WHERE disputed = 1',
  'a count that is wrong': `SELECT name FROM counts c WHERE n <> CASE name WHEN 'records' THEN (SELECT COUNT(*) FROM records) WHEN 'copies' THEN (SELECT COUNT(*) FROM copies)
       WHEN 'headings' THEN (SELECT COUNT(*) FROM headings WHERE merged_into IS NULL) ELSE n END`,
  'a count of a delivery that is wrong': `SELECT delivery, state, decision, n, errors FROM delivery_counts WHERE n <> 0 EXCEPT
     SELECT i.delivery, i.state, i.decision, COUNT(*), SUM(f.errors > 0) FROM incoming i JOIN incoming_fields f ON f.id = i.id GROUP BY 1, 2, 3`,
  'a use of a heading that is wrong': `SELECT kind, key, n FROM heading_use EXCEPT SELECT kind, key, COUNT(*) FROM record_keys GROUP BY kind, key`,
  'an entry that did nothing':
    "SELECT id FROM daybook WHERE objects = 0 AND act NOT IN ('first-fill', 'account')",
  'a merged heading that leads nowhere': `WITH RECURSIVE lead (id, to_id, far) AS (SELECT id, merged_into, 1 FROM headings WHERE merged_into IS NOT NULL
       UNION ALL SELECT l.id, h.merged_into, far + 1 FROM lead l JOIN headings h ON h.id = l.to_id WHERE h.merged_into IS NOT NULL AND far < 50)
     SELECT id FROM headings WHERE merged_into IS NOT NULL AND id NOT IN
       (SELECT l.id FROM lead l JOIN headings h ON h.id = l.to_id AND h.merged_into IS NULL)`,
  'a barcode in use and withdrawn':
    "SELECT w.id FROM withdrawn w JOIN copies c ON c.id = json_extract(w.value, '$.copyId') WHERE w.gone = 0",
  'keys of a record that is not there':
    'SELECT record FROM record_keys WHERE record NOT IN (SELECT id FROM records)',
  'a record accepted twice':
    "SELECT record FROM incoming WHERE state = 'accepted' AND decision = 'add' GROUP BY record HAVING COUNT(*) > 1",
  'a copy of an accepted record that is on another': `SELECT i.id FROM incoming i, json_each(i.value, '$.copies') p JOIN copies c ON c.barcode = json_extract(p.value, '$.barcode') WHERE i.state = 'accepted' AND c.record <> i.record`,
};

/** Every breach of what must always hold in a store, as "what: where". None in a sound one. */
export async function breaches(store: Store): Promise<string[]> {
  const found: string[] = [];
  for (const [what, sql] of Object.entries(NEVER)) {
    const rows = await store.rows(sql);
    if (rows.length) found.push(`${what}: ${JSON.stringify(rows.slice(0, 5))}`);
  }
  return [...found, ...(await rollBreaches(store))];
}

/** The ledger of label rolls has just the numbers that are or were on copies; no two rolls share a number. */
async function rollBreaches(store: Store): Promise<string[]> {
  const rolls = await store.select('roll', '1');
  const used = await store.rows<{ barcode: string }>(
    'SELECT barcode FROM copies UNION SELECT barcode FROM withdrawn WHERE gone = 0',
  );
  const ledger = await store.rows<{ number: string; roll: number; serial: number }>(
    'SELECT number, roll, serial FROM roll_numbers',
  );
  const expected = new Set<string>();
  const found: string[] = [];
  for (const { barcode } of used) {
    const of = rolls.filter((r) => serialIn(r.value, barcode) !== null);
    if (of.length > 1) found.push(`a number of two rolls: ${barcode}`);
    for (const r of of) expected.add(`${barcode} ${r.id} ${serialIn(r.value, barcode)}`);
  }
  const kept = new Set(ledger.map((l) => `${l.number} ${l.roll} ${l.serial}`));
  for (const e of expected) if (!kept.has(e)) found.push(`not in the ledger: ${e}`);
  for (const k of kept) if (!expected.has(k)) found.push(`in the ledger and not used: ${k}`);
  for (const [i, a] of rolls.entries())
    for (const b of rolls.slice(i + 1))
      if (
        a.value.prefix === b.value.prefix &&
        a.value.length === b.value.length &&
        a.value.from <= b.value.to &&
        b.value.from <= a.value.to
      )
        found.push(`rolls that overlap: ${a.value.name}, ${b.value.name}`);
  return found;
}
