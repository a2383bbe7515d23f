/** Piles, and what lies on each, one row a thing. */
export const piles = [
  `CREATE TABLE piles (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, name TEXT NOT NULL)`,
  `CREATE TABLE piled (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL,
     pile INTEGER NOT NULL, kind TEXT NOT NULL, object INTEGER NOT NULL)`,
  `CREATE INDEX piled_pile ON piled (pile, kind, object)`,
];
