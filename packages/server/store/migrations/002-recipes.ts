/** Recipes that a library made or took over. */
export const recipes = [
  `CREATE TABLE recipes (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL, name TEXT NOT NULL)`,
];
