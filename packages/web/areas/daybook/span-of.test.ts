import { buildSync } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { spanOf } from './span-of';

const built = buildSync({
  ...{ entryPoints: [join(__dirname, 'span-of.ts')], bundle: true, write: false },
  ...{ format: 'iife', globalName: 'built', platform: 'node' },
}).outputFiles[0]!.text;

/** What it gives where the clocks are moved on 29 March and 25 October 2026: a process of its own, as the zone is read at its start. */
const inBrussels = (from: string, to: string): unknown =>
  JSON.parse(
    execFileSync(
      process.execPath,
      [
        '-e',
        `${built}; process.stdout.write(JSON.stringify(built.spanOf(process.argv[1], process.argv[2])))`,
        from,
        to,
      ],
      { encoding: 'utf8', env: { ...process.env, TZ: 'Europe/Brussels' } },
    ),
  );

test.each([
  ['2026-11-30', '2026-11-30', '2026-11-29T23:00:00.000Z', '2026-11-30T23:00:00.000Z'],
  ['2026-07-01', '2026-07-02', '2026-06-30T22:00:00.000Z', '2026-07-02T22:00:00.000Z'],
  // Days of 23 and of 25 hours.
  ['2026-03-29', '2026-03-29', '2026-03-28T23:00:00.000Z', '2026-03-29T22:00:00.000Z'],
  ['2026-10-25', '2026-10-25', '2026-10-24T22:00:00.000Z', '2026-10-25T23:00:00.000Z'],
])('%s to %s are those days by the clock on the wall', (from, to, begins, ends) =>
  expect(inBrussels(from, to)).toEqual({ from: begins, to: ends }),
);
test('what is not given or no day stays as it is', () =>
  expect(spanOf(undefined, 'yesterday')).toEqual({ from: undefined, to: 'yesterday' }));
