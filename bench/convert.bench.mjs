// Reading ISO 2709 and writing MARC-in-JSON, against yaz-marcdump doing the same to the same file.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';

const RECORDS = 100_000;
const RUNS = 3;

/** The clean demo delivery over and over, each record with a note that brings it to about 1,000 bytes. */
function makeFile(path) {
  const records = readFileSync(join(root, 'demo/files/tallow-and-pike.mrc'))
    .toString('binary')
    .split('\x1d')
    .slice(0, -1);
  const note = `  \x1fa${'Measurements in inches throughout, with remarks. '.repeat(9)}\x1e`;
  const longer = records.map((r) => {
    const base = Number(r.slice(12, 17));
    const data = r.slice(base);
    const directory = `${r.slice(24, base - 1)}520${String(note.length).padStart(4, '0')}${String(data.length).padStart(5, '0')}`;
    const length = 24 + directory.length + 1 + data.length + note.length + 1;
    return `${String(length).padStart(5, '0')}${r.slice(5, 12)}${String(25 + directory.length).padStart(5, '0')}${r.slice(17, 24)}${directory}\x1e${data}${note}\x1d`;
  });
  const all = Array.from({ length: RECORDS }, (_, i) => longer[i % longer.length]).join('');
  writeFileSync(path, Buffer.from(all, 'binary'));
  return all.length;
}

const seconds = (command, args, out) => {
  const began = performance.now();
  const done = spawnSync('sh', ['-c', `"$0" "$@" > ${out}`, command, ...args], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (done.status !== 0) throw new Error(`${command} ended with ${done.status}`);
  return (performance.now() - began) / 1000;
};

export async function convertBench() {
  const file = join(tmpdir(), `osier-bench-${process.pid}.mrc`);
  const bytes = makeFile(file);
  const best = { osier: Infinity, yaz: Infinity };
  for (let i = 0; i < RUNS; i++) {
    best.yaz = Math.min(best.yaz, seconds('yaz-marcdump', ['-i', 'marc', '-o', 'json', file], '/dev/null'));
    best.osier = Math.min(
      best.osier,
      seconds(
        process.execPath,
        [
          '--max-semi-space-size=64',
          join(root, 'packages/cli/dist/osier.mjs'),
          'convert',
          file,
          '--to',
          'json',
        ],
        '/dev/null',
      ),
    );
  }
  rmSync(file);
  return {
    work: `read ${RECORDS.toLocaleString('en-GB')} records (${(bytes / 1e6).toFixed(0)} MB), write MARC-in-JSON`,
    against: 'yaz-marcdump',
    ours: best.osier,
    theirs: best.yaz,
  };
}
