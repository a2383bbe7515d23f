/** What a search sorts and counts by, beside the records themselves, which are large. */
export const searchIndexes = [
  `CREATE INDEX records_facets ON records (id, sort, language, material)`,
  `CREATE INDEX records_kinds ON records (language, material)`,
  `DROP INDEX holdings_record`,
  `CREATE INDEX holdings_record ON holdings (record, branch)`,
  `CREATE INDEX holdings_branch ON holdings (branch, record)`,
];
