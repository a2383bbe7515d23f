// All checks over a file of records that are all different, against MARC::Lint (Debian: libmarc-lint-perl) over the same, per record, in one run.
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';
import { bundled } from './bundled.mjs';
import { bestOf, osier, timed } from './timed.mjs';

const OURS = 100_000;
const THEIRS = 20_000;

export async function checkBench() {
  const file = (n) => join(tmpdir(), `osier-bench-${process.pid}-${n}.mrc`);
  const vary = await bundled('varied-file');
  for (const n of [OURS, THEIRS]) await timed(process.execPath, [vary, file(n), String(n)]);
  const [ours, lint] = await bestOf(5, [
    osier('check', file(OURS), '--format', 'json'),
    ['perl', [join(root, 'bench/lint.pl'), file(THEIRS)]],
  ]);
  for (const n of [OURS, THEIRS]) rmSync(file(n));
  return [
    {
      work: 'all checks over one record, milliseconds',
      against: 'MARC::Lint',
      ours: (1000 * ours.seconds) / OURS,
      theirs: (1000 * lint.seconds) / THEIRS,
      budget: 0.08,
      unit: 'ms',
    },
  ];
}
