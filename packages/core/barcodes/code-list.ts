/** How a column of codes may be headed (common practice, no source). */
const HEADED =
  /^(?:bar\s?codes?|codes?|item\s?(?:id|barcode|number)|copy\s?(?:id|barcode)|strich\s?code|isbn|record(?: number)?)$/i;

/** Whether a text may be a code: no blanks within, at least one digit. */
export const mayBeCode = (text: string): boolean =>
  /^[A-Za-z0-9$+%./*-]*\d[A-Za-z0-9$+%./*-]*$/.test(text.replace(/[\s-]/g, ''));

/**
 * The codes of a table: of the column that is headed as one, else of the one in which most cells may be codes; each line gives one, in order. A first line that is no
 * code is taken for the heads; `isWalk`: in a list without columns only where it is headed as one, as every line is a scan.
 */
export function codesOf(rows: readonly (readonly string[])[], isWalk = false): string[] {
  const filled = rows.map((r) => r.map((c) => c.trim())).filter((r) => r.some(Boolean));
  const [heads] = filled;
  if (!heads) return [];
  const named = heads.findIndex((h) => HEADED.test(h));
  const width = filled.reduce((most, r) => Math.max(most, r.length), 0);
  const counts = Array.from({ length: width }, (_, i) => filled.filter((r) => mayBeCode(r[i] ?? '')).length);
  const column = named >= 0 ? named : counts.indexOf(Math.max(...counts));
  const mayBeHeaded = filled.length > 1 && !(isWalk && width === 1);
  const isHeaded = named >= 0 || (mayBeHeaded && !mayBeCode(heads[column] ?? ''));
  return filled.slice(isHeaded ? 1 : 0).flatMap((r) => r[column] || []);
}
