import { DEFAULT_HOUSE } from '@osier/core/house';
import { output } from './output';
import { workOn } from './source';
import { notOver, oneOf, readArguments, UsageError } from './usage';

/**
 * `osier check`: every finding as a line, and with `--fix --out FILE` the records with all safe fixes applied. 0 whatever
 * it finds, 1 when nothing can be read.
 */
export async function check(args: readonly string[]): Promise<number> {
  const { file, options, flags } = readArguments(args, ['format', 'out'], ['fix']);
  const as = oneOf('format', options.format ?? 'text', ['json', 'text']);
  const fix = flags.has('fix');
  if (fix !== (options.out !== undefined))
    throw new UsageError('--fix and --out FILE go together: the fixed records are written to the file.');
  notOver(file, options.out);
  const findings = output(undefined);
  const mended = fix ? output(options.out) : null;
  let written = 0;
  const problem = await workOn(file, undefined, { act: 'check', as, house: DEFAULT_HOUSE, fix }, (done) => {
    written += done.written;
    findings.put(done.out);
    mended?.put(done.fixed);
  });
  if (written === 0) throw new UsageError(problem ?? 'No record in this file could be read.');
  findings.end();
  mended?.end();
  if (problem) process.stderr.write(`osier: ${problem}\n`);
  return 0;
}
