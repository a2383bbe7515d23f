/** Adds to the counts of a facet, from a trigger; `rows` gives the value and by how much. */
const count = (facet: string, rows: string): string =>
  `INSERT INTO facet_counts (facet, value, n) SELECT '${facet}', v, d FROM (${rows}) WHERE true ON CONFLICT (facet, value) DO UPDATE SET n = n + excluded.n;`;
const one = (value: string, by: string) => `SELECT ${value} AS v, ${by} AS d`;
/** The branch of a copy's holding, where that is there. */
const at = (row: string, by: string) =>
  `SELECT h.branch AS v, ${by} AS d FROM holdings h WHERE h.id = ${row}.holding`;
/** All copies of a holding. */
const of = (row: string, by: string) =>
  `SELECT ${row}.branch AS v, ${by} * COUNT(*) AS d FROM copies c WHERE c.holding = ${row}.id HAVING COUNT(*) > 0`;
const copy = (row: string, by: string) =>
  count('copy-status', one(`${row}.status`, by)) +
  count('copy-type', one(`${row}.type`, by)) +
  count('copy-branch', at(row, by));

/** How many copies there are of each status and type, and at each branch; triggers keep the counts. */
export const copyCounts: readonly string[] = [
  `CREATE TRIGGER copies_by_facet AFTER INSERT ON copies BEGIN ${copy('NEW', '1')} END`,
  `CREATE TRIGGER copies_by_facet_less AFTER DELETE ON copies BEGIN ${copy('OLD', '-1')} END`,
  `CREATE TRIGGER copies_by_facet_again AFTER UPDATE OF holding, status, type ON copies
     WHEN (OLD.holding, OLD.status, OLD.type) <> (NEW.holding, NEW.status, NEW.type) BEGIN ${copy('OLD', '-1')} ${copy('NEW', '1')} END`,
  `CREATE TRIGGER holdings_with_copies AFTER INSERT ON holdings BEGIN ${count('copy-branch', of('NEW', '1'))} END`,
  `CREATE TRIGGER holdings_without_copies AFTER DELETE ON holdings BEGIN ${count('copy-branch', of('OLD', '-1'))} END`,
  `CREATE TRIGGER holdings_moved_copies AFTER UPDATE OF branch ON holdings WHEN OLD.branch <> NEW.branch BEGIN
     ${count('copy-branch', of('OLD', '-1'))} ${count('copy-branch', of('NEW', '1'))} END`,
];
