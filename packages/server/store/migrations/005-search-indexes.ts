/** What searches and lists sort and count by, beside the records themselves, which are large. */
export const searchIndexes = [
  `CREATE INDEX records_facets ON records (id, sort, language, material)`,
  `CREATE INDEX incoming_errors ON incoming_fields (id) WHERE errors > 0`,
  `CREATE INDEX records_kinds ON records (language, material)`,
  `DROP INDEX holdings_record`,
  `CREATE INDEX holdings_record ON holdings (record, branch)`,
  `CREATE INDEX holdings_branch ON holdings (branch, record)`,
];
