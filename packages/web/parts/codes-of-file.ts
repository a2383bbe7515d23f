/** Text of a file in the encoding that it says or shows: UTF-8 and UTF-16 by their marks, UTF-8 where it is right, else Windows-1252. */
export function decodedText(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** How a column of codes may be headed (common practice, no source). */
const HEADED =
  /^(?:bar\s?codes?|codes?|item\s?(?:id|barcode|number)|copy\s?(?:id|barcode)|strich\s?code|isbn|record(?: number)?)$/i;
/** What may be a code: no blanks within, at least one digit. */
const isCode = (text: string) =>
  /^[A-Za-z0-9$+%./*-]*\d[A-Za-z0-9$+%./*-]*$/.test(text.replace(/[\s-]/g, ''));

/**
 * The codes of a table: of the column that is headed as one, else of the one in which most cells may be codes; each line gives one, in order. A first line that is no
 * code is taken for the heads.
 */
export function codesOf(rows: readonly (readonly string[])[]): string[] {
  const filled = rows.map((r) => r.map((c) => c.trim())).filter((r) => r.some(Boolean));
  const [heads] = filled;
  if (!heads) return [];
  const named = heads.findIndex((h) => HEADED.test(h));
  const width = Math.max(...filled.map((r) => r.length));
  const counts = Array.from({ length: width }, (_, i) => filled.filter((r) => isCode(r[i] ?? '')).length);
  const column = named >= 0 ? named : counts.indexOf(Math.max(...counts));
  const isHeaded = named >= 0 || (filled.length > 1 && !isCode(heads[column] ?? ''));
  return filled.slice(isHeaded ? 1 : 0).flatMap((r) => r[column] || []);
}

/** The codes in a file: one a line, or a column of a table with commas, semicolons or tabs. */
export async function codesOfFile(file: Blob): Promise<string[]> {
  const { parse } = await import('papaparse');
  const text = decodedText(new Uint8Array(await file.arrayBuffer())).replace(/^\ufeff/, '');
  return codesOf(parse<string[]>(text, { skipEmptyLines: true }).data);
}
