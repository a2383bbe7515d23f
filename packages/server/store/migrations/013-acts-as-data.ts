/** What an entry did, as data (JSON); entries from before keep their sentence. */
export const actsAsData: readonly string[] = [`ALTER TABLE daybook ADD COLUMN said TEXT`];
