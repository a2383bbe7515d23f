/** Supplier sheets and label rolls; what records are compared by; copies of incoming records; what cleaning changed. What records are compared by is computed after the store is opened. */
export const suppliers = [
  `CREATE TABLE sheets (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, name TEXT NOT NULL)`,
  `CREATE TABLE rolls (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, name TEXT NOT NULL)`,
  `ALTER TABLE records ADD COLUMN matching TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE incoming ADD COLUMN copies INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE incoming ADD COLUMN copy_problems INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE incoming ADD COLUMN note TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE incoming_read ADD COLUMN before TEXT NOT NULL DEFAULT '[]'`,
  `ALTER TABLE incoming_read DROP COLUMN taken`,
  `UPDATE incoming_read SET before = (SELECT json_group_array(json_object('rule', json_extract(f.value, '$.rule'), 'severity', json_extract(f.value, '$.severity')))
     FROM incoming i, json_each(i.findings) f WHERE i.id = incoming_read.incoming)`,
  `UPDATE incoming_read SET matches = (SELECT json_group_array(json_object('record', json_extract(m.value, '$.record'), 'strength', 100,
     'sure', json(CASE WHEN json_extract(m.value, '$.doubt') IS NULL THEN 'true' ELSE 'false' END),
     'points', json_array(json_object('by', json_extract(m.value, '$.by'), 'said', json_extract(m.value, '$.key'))),
     'doubts', CASE WHEN json_extract(m.value, '$.doubt') IS NULL THEN json('[]') ELSE json_array(json_extract(m.value, '$.doubt')) END, 'likeness', 0))
     FROM json_each(incoming_read.matches) m)`,
];
