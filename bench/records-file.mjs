// A file of 100,000 records of about 1,000 bytes, made from the clean demo delivery.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';

/** Writes `count` records: those of the demo delivery over and over, each with a note. Gives the size in bytes. */
export function makeRecordsFile(path, count) {
  const records = readFileSync(join(root, 'demo/files/tallow-and-pike.mrc'))
    .toString('binary')
    .split('\x1d')
    .slice(0, -1);
  const note = `  \x1fa${'Measurements in inches throughout, with remarks on tools. '.repeat(8).trimEnd()}\x1e`;
  const longer = records.map((r) => {
    const base = Number(r.slice(12, 17));
    const data = r.slice(base);
    const directory = `${r.slice(24, base - 1)}520${String(note.length).padStart(4, '0')}${String(data.length).padStart(5, '0')}`;
    const length = 24 + directory.length + 1 + data.length + note.length + 1;
    return `${String(length).padStart(5, '0')}${r.slice(5, 12)}${String(25 + directory.length).padStart(5, '0')}${r.slice(17, 24)}${directory}\x1e${data}${note}\x1d`;
  });
  const all = Array.from({ length: count }, (_, i) => longer[i % longer.length]).join('');
  writeFileSync(path, Buffer.from(all, 'binary'));
  return all.length;
}
