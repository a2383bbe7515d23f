/** Names are compared by numbers instead of texts, and that words lie near each other is kept once for a word; those that wait are taken up in the order of their keys. */
export const nameBuckets: readonly string[] = [
  `DROP TABLE alike_buckets`,
  `CREATE TABLE alike_buckets (bucket INTEGER NOT NULL, heading INTEGER NOT NULL, PRIMARY KEY (bucket, heading)) WITHOUT ROWID`,
  `CREATE INDEX alike_buckets_heading ON alike_buckets (heading)`,
  `CREATE TABLE alike_near (near INTEGER NOT NULL, bucket INTEGER NOT NULL, PRIMARY KEY (near, bucket)) WITHOUT ROWID`,
  `DROP TABLE alike_dirty`,
  `CREATE TABLE alike_dirty (heading INTEGER PRIMARY KEY, place TEXT NOT NULL)`,
  `CREATE INDEX alike_dirty_place ON alike_dirty (place, heading)`,
];
