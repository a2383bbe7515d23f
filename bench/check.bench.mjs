// All checks over a file, against MARC::Lint (Debian: libmarc-lint-perl) over the same, per record, in one run.
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';
import { makeRecordsFile } from './records-file.mjs';
import { bestOf, osier } from './timed.mjs';

const OURS = 100_000;
const THEIRS = 20_000;

export async function checkBench() {
  const file = (n) => join(tmpdir(), `osier-bench-${process.pid}-${n}.mrc`);
  makeRecordsFile(file(OURS), OURS);
  makeRecordsFile(file(THEIRS), THEIRS);
  const [ours, lint] = await bestOf(2, [
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
      budget: 1 / 10,
      unit: 'ms',
    },
  ];
}
