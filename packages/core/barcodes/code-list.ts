/** How a column of codes may be headed (common practice, no source). */
const HEADED =
  /^(?:bar\s?codes?|codes?|item\s?(?:id|barcode|number)|copy\s?(?:id|barcode)|strich\s?code|isbn|record(?: number)?)$/i;

/** Whether a text may be a code: no blanks within, at least one digit. */
export const mayBeCode = (text: string): boolean =>
  /^[A-Za-z0-9$+%./*-]*\d[A-Za-z0-9$+%./*-]*$/.test(text.replace(/[\s-]/g, ''));

/** The lines of a table of codes that hold something, trimmed. */
interface CodeTable {
  /** What the columns are called; empty without heads. */
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** The column of the codes. */
  readonly column: number;
}

/**
 * A table of codes: its column is the one that is headed so, else the one in which most cells may be codes. A first line that is no code is taken for
 * the heads; `isWalk`: in a list without columns only where it is headed as one, as every line is a scan.
 */
export function codeTable(rows: readonly (readonly string[])[], isWalk = false): CodeTable {
  const filled = rows.map((r) => r.map((c) => c.trim())).filter((r) => r.some(Boolean));
  const [heads] = filled;
  if (!heads) return { heads: [], rows: [], column: 0 };
  const named = heads.findIndex((h) => HEADED.test(h));
  const width = filled.reduce((most, r) => Math.max(most, r.length), 0);
  const counts = Array.from({ length: width }, (_, i) => filled.filter((r) => mayBeCode(r[i] ?? '')).length);
  const column = named >= 0 ? named : counts.indexOf(Math.max(...counts));
  const mayBeHeaded = filled.length > 1 && !(isWalk && width === 1);
  const isHeaded = named >= 0 || (mayBeHeaded && !mayBeCode(heads[column] ?? ''));
  return { heads: isHeaded ? heads : [], rows: filled.slice(isHeaded ? 1 : 0), column };
}

/** The codes of a table, each line one, in order. */
export function codesOf(table: readonly (readonly string[])[], isWalk = false): string[] {
  const { rows, column } = codeTable(table, isWalk);
  return rows.flatMap((r) => r[column] || []);
}
