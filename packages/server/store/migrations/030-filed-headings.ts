/** The forms of headings in the order in which they are filed: one with subdivisions or a title stands before those with longer words (`$` before the blank). */
export const filedHeadings: readonly string[] = [
  `CREATE INDEX heading_use_filed ON heading_use (kind, replace(key, '$', char(9)), key)`,
  `CREATE INDEX heading_keys_filed ON heading_keys (kind, replace(key, '$', char(9)), key)`,
];
