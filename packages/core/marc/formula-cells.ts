/** How a formula begins in a spreadsheet (OWASP, CSV Injection), after the apostrophes that already stand there. */
const FORMULA = /^'*[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/;

/** The text of a cell that no spreadsheet runs: what would begin a formula has an apostrophe in front. */
export const harmlessCell = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);

/** The text as it was before `harmlessCell`. */
export const cellAsItWas = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell;
