import { byKey, SCHEME_NAMES, schemeNamed, shelfKeyOf } from '@osier/core/callnumbers';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { oneOf, readArguments } from './usage';

/** `osier callnumbers`: a list of call numbers, one a line, in shelf order; with `--keys` each behind its sort key, as it came. */
export async function callNumbers(args: readonly string[]): Promise<number> {
  const { file, options, flags } = readArguments(args, ['scheme'], ['keys']);
  const scheme = schemeNamed(oneOf('scheme', options.scheme, SCHEME_NAMES)) ?? 'own';
  const input = file === '-' ? process.stdin : createReadStream(file);
  const rows: { key: string; text: string }[] = [];
  for await (const line of createInterface({ input, crlfDelay: Infinity }))
    if (line.trim()) rows.push({ key: shelfKeyOf(line.trim(), scheme), text: line.trim() });
  if (!flags.has('keys')) rows.sort((a, b) => byKey(a.key, b.key));
  process.stdout.write(
    rows.map((r) => (flags.has('keys') ? `${r.key}\t${r.text}\n` : `${r.text}\n`)).join(''),
  );
  return 0;
}
