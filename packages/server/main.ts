import { readSettings } from './settings';
import { startOsier } from './start';

const root = process.env.OSIER_ROOT ?? process.cwd();

/** Milliseconds in which a stop must be done. */
const LONGEST_STOP = 4000;

async function main(): Promise<void> {
  const running = await startOsier(readSettings(process.env, root));
  let stopping = false;
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      if (stopping) return;
      stopping = true;
      // What takes longer is taken up again at the next start.
      setTimeout(() => process.exit(0), LONGEST_STOP).unref();
      void running.stop().then(() => process.exit(0));
    });
  const code = await running.services.people.firstHeadCode();
  if (code)
    process.stdout.write(
      `\nNobody has an account yet. Open the address below and make the first one with this code:  ${code}\n`,
    );
  process.stdout.write(`\nOsier is ready:  ${running.address}\n\n`);
}

main().catch((error: NodeJS.ErrnoException) => {
  const text =
    error.code === 'EADDRINUSE'
      ? 'The port is taken. Set OSIER_PORT to another one, or stop what uses it.'
      : error.message;
  process.stderr.write(`Osier could not start: ${text}\n`);
  process.exit(1);
});
