/** What a withdrawn copy cost stands in the register with its currency: '' for the library's own, as all have until now. */
export const currencies: readonly string[] = [
  `ALTER TABLE withdrawn ADD COLUMN currency TEXT NOT NULL DEFAULT ''`,
];
