import { codesOf } from '@osier/core/barcodes';
import { decodedText } from '@osier/core/text';

/** The codes in a file: one a line, or a column of a table with commas, semicolons or tabs. */
export async function codesOfFile(file: Blob): Promise<string[]> {
  const { parse } = await import('papaparse');
  const text = decodedText(new Uint8Array(await file.arrayBuffer()));
  return codesOf(parse<string[]>(text, { skipEmptyLines: true }).data);
}
