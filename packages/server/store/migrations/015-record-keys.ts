/** A store whose records were all described has keys of the first rule; any other computes them after it is opened. */
export const recordKeys: readonly string[] = [
  `INSERT INTO key_versions (name, version) SELECT 'record-keys', 1 WHERE NOT EXISTS (SELECT 1 FROM records WHERE matching = '')`,
];
