import { isMainThread, workerData } from 'node:worker_threads';
import { serve } from './pool';
import { UsageError } from './usage';

const USAGE = `usage: osier convert FILE --to iso2709|marcxml|json|lines|csv [--from iso2709|marcxml|json] [--charset utf8|marc8] [--columns '001,245$a,…'] [--out FILE] [--report FILE]
       osier check FILE [--format json|text] [--fix --out FILE]
       osier find FILE QUERY [--format lines|iso2709|marcxml|json|csv] [--columns '001,245$a,…'] [--out FILE]
       osier headings FILE [--records RECORDS] [--format json]
       osier headings --merge CASES [--format json]
       osier callnumbers FILE --scheme lc|dewey|nlm|generic [--keys]
       osier barcodes FILE --scheme isbn10|isbn13|issn|ean13|library14|code39mod43
       osier stocktake --holdings CSV --scans FILE --stretch JSON
FILE may be - for standard input; the input format is found from the content.
`;

const COMMANDS: Record<string, (args: readonly string[]) => Promise<number>> = {
  convert: async (args) => (await import('./convert')).convert(args),
  check: async (args) => (await import('./check')).check(args),
  find: async (args) => (await import('./find')).find(args),
  headings: async (args) => (await import('./headings')).headings(args),
  callnumbers: async (args) => (await import('./callnumbers')).callNumbers(args),
  barcodes: async (args) => (await import('./barcodes')).barcodes(args),
  stocktake: async (args) => (await import('./stocktake')).stocktakeFiles(args),
};

async function main(): Promise<number> {
  const [command, ...rest] = process.argv.slice(2);
  if (command === 'help' || command === '--help') {
    process.stdout.write(USAGE);
    return 0;
  }
  const names = Object.keys(COMMANDS)
    .join(', ')
    .replace(/, (?=\w+$)/, ' and ');
  const run = command === undefined ? undefined : COMMANDS[command];
  if (run) return run(rest);
  throw new UsageError(
    command
      ? `There is no command “${command}”; there are ${names}.`
      : `Give a command: ${names.replace(' and ', ' or ')}.`,
  );
}

if (isMainThread) {
  try {
    process.exitCode = await main();
  } catch (error) {
    const known = error as NodeJS.ErrnoException;
    if (known.code === 'EPIPE') process.exit(0);
    const text =
      error instanceof UsageError
        ? error.message
        : known.code === 'ENOENT'
          ? `There is no file ${known.path}.`
          : known.message;
    process.stderr.write(`osier: ${text}\n`);
    process.exitCode = 1;
  }
} else serve(workerData as Parameters<typeof serve>[0]);
