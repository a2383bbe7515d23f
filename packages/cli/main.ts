import { callNumbers } from './callnumbers';
import { convert } from './convert';
import { UsageError } from './usage';

const USAGE = `usage: osier convert FILE --to iso2709|marcxml|json|lines [--from iso2709|marcxml|json] [--out FILE] [--report FILE]
       osier callnumbers FILE --scheme lc|dewey|nlm|generic [--keys]
FILE may be - for standard input.
`;

const [command, ...rest] = process.argv.slice(2);
try {
  if (command === 'convert') process.exitCode = await convert(rest);
  else if (command === 'callnumbers') process.exitCode = await callNumbers(rest);
  else if (command === 'help' || command === '--help') process.stdout.write(USAGE);
  else
    throw new UsageError(
      command
        ? `There is no command “${command}”; there are convert and callnumbers.`
        : 'Give a command: convert or callnumbers.',
    );
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
