import { counting } from './011-projections';

const inherited = (column: string): string =>
  `(SELECT h.${column} FROM holdings h WHERE h.id = copies.holding)`;

/** Lists of copies: by place on the shelf, and by what is known of each. */
export const copyLists: readonly string[] = [
  `ALTER TABLE copies ADD COLUMN branch TEXT`,
  `ALTER TABLE copies ADD COLUMN location TEXT`,
  `ALTER TABLE copies ADD COLUMN shelf_key TEXT`,
  `ALTER TABLE copies ADD COLUMN fund TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE copies ADD COLUMN supplier TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE copies ADD COLUMN acquired TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE copies ADD COLUMN price INTEGER`,
  `UPDATE copies SET branch = ${inherited('branch')}, location = ${inherited('location')}, shelf_key = ${inherited('shelf_key')},
     fund = ifnull(json_extract(value, '$.fund'), ''), supplier = ifnull(json_extract(value, '$.supplier'), ''),
     acquired = ifnull(json_extract(value, '$.acquired'), ''), price = json_extract(value, '$.price')`,
  `CREATE INDEX copies_shelf ON copies (shelf_key, id)`,
  `CREATE INDEX copies_branch ON copies (branch, shelf_key, id)`,
  `CREATE INDEX copies_fund ON copies (fund, shelf_key, id)`,
  `CREATE INDEX copies_supplier ON copies (supplier, shelf_key, id)`,
  `CREATE INDEX copies_acquired ON copies (acquired, id)`,
  `CREATE INDEX copies_seen ON copies (last_seen, id)`,
  // The places on the shelf that are there are computed anew after the store is opened, while people work.
  `INSERT INTO key_versions (name, version) SELECT 'holding shelf_key', 2 WHERE NOT EXISTS (SELECT 1 FROM holdings)`,
];

/** A heading may look like several others that are not each other's. */
export const alikeMembers: readonly string[] = [
  `DROP TABLE alike_members`,
  `CREATE TABLE alike_members (heading INTEGER NOT NULL, alike_group INTEGER NOT NULL, PRIMARY KEY (heading, alike_group)) WITHOUT ROWID`,
  `CREATE INDEX alike_members_group ON alike_members (alike_group)`,
  // Pairs that are put by stay pairs; groups are ranked by how sure they are and how much they touch.
  `ALTER TABLE distinct_pairs ADD COLUMN later INTEGER NOT NULL DEFAULT 0`,
  `DELETE FROM alike_groups`,
  `DROP INDEX alike_groups_score`,
  `ALTER TABLE alike_groups ADD COLUMN kind TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE alike_groups ADD COLUMN vocabulary TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE alike_groups ADD COLUMN records INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE alike_groups ADD COLUMN parked INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE alike_groups ADD COLUMN rank REAL NOT NULL DEFAULT 0`,
  ...['counted', 'uncounted'].map((name) => `DROP TRIGGER alike_groups_${name}`),
  ...counting('look-alikes', 'alike_groups', '$.parked = 0').slice(1),
  `CREATE INDEX alike_groups_rank ON alike_groups (parked, rank DESC, id)`,
];

/** Which headings somebody has established, for lists; and headings by how many records carry them. */
export const establishedHeadings: readonly string[] = [
  `ALTER TABLE headings ADD COLUMN established INTEGER NOT NULL DEFAULT 0`,
  `UPDATE headings SET established = EXISTS (SELECT 1 FROM json_each(headings.value, '$.marc.fields') f
     WHERE f.value ->> 'tag' GLOB '[45]??' OR f.value ->> 'tag' GLOB '6[67]?' OR f.value ->> 'tag' IN ('001', '010'))`,
  `CREATE INDEX headings_established ON headings (established) WHERE established = 1`,
  `CREATE INDEX heading_use_n ON heading_use (n DESC, kind, key)`,
];
