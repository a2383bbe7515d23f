const count = (row: 'NEW' | 'OLD', by: 1 | -1): string =>
  `INSERT INTO facet_counts (facet, value, n) SELECT 'heading-kind', ${row}.kind, ${by} WHERE ${row}.merged_into IS NULL
     ON CONFLICT (facet, value) DO UPDATE SET n = n + excluded.n;`;

/** How many headings there are of each kind, those that were merged left out; triggers keep the counts. */
export const headingKinds: readonly string[] = [
  `CREATE TRIGGER headings_by_kind AFTER INSERT ON headings BEGIN ${count('NEW', 1)} END`,
  `CREATE TRIGGER headings_by_kind_less AFTER DELETE ON headings BEGIN ${count('OLD', -1)} END`,
  `CREATE TRIGGER headings_by_kind_again AFTER UPDATE OF kind, merged_into ON headings BEGIN ${count('OLD', -1)} ${count('NEW', 1)} END`,
];
