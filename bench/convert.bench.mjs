// Reading ISO 2709 and writing MARC-in-JSON, against yaz-marcdump doing the same and marcjs only parsing, in one run.
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeRecordsFile } from './records-file.mjs';
import { bestOf, osier } from './timed.mjs';
import { root } from '../scripts/install.mjs';

const SIZES = [30_000, 100_000];
const RUNS = 5;

export const convertBench = async () => {
  const rows = [];
  for (const records of SIZES) rows.push(...(await converted(records)));
  return rows;
};

async function converted(records) {
  const file = join(tmpdir(), `osier-bench-${process.pid}.mrc`);
  const bytes = makeRecordsFile(file, records);
  const [ours, yaz, marcjs] = await bestOf(RUNS, [
    osier('convert', file, '--to', 'json'),
    ['yaz-marcdump', ['-i', 'marc', '-o', 'json', file]],
    [process.execPath, [join(root, 'bench/marcjs-read.mjs'), file]],
  ]);
  rmSync(file);
  const work = `read ${records.toLocaleString('en-GB')} records (${(bytes / 1e6).toFixed(0)} MB), write MARC-in-JSON`;
  return [
    { work, against: 'yaz-marcdump doing the same', ours: ours.seconds, theirs: yaz.seconds, budget: 1 },
    { work, against: 'marcjs parsing', ours: ours.seconds, theirs: marcjs.seconds, budget: 1 / 4 },
    {
      work: `${work}: peak memory`,
      against: 'the budget',
      ours: ours.peak,
      theirs: 250,
      budget: 1,
      unit: 'MB',
    },
  ];
}
