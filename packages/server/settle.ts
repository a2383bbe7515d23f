import { readSettings } from './settings';
import { startOsier } from './start';

/**
 * Does on the store of `OSIER_DATA` what a server would do at its start and beside its work (rebuild keys, check all records, compare names
 * and records), and ends: whoever opens it afterwards finds it done.
 */
async function settle(): Promise<void> {
  const settings = readSettings(
    { ...process.env, OSIER_PORT: '0', OSIER_HOST: '127.0.0.1', OSIER_NIGHT_HOUR: 'off', OSIER_LOG: 'warn' },
    process.env.OSIER_ROOT ?? process.cwd(),
  );
  const osier = await startOsier(settings);
  const { jobs, background } = osier.services;
  while (jobs.running().length) await new Promise((resolve) => setTimeout(resolve, 20));
  await background.idle();
  await osier.stop();
}

settle().catch((error: Error) => {
  process.stderr.write(`The library could not be settled: ${error.message}\n`);
  process.exit(1);
});
