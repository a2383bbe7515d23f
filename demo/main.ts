import { join } from 'node:path';
import { fillIfEmpty } from './fill';
import { writeFiles, writeForStandIns } from './write-files';

/** `fill FOLDER` lays the demo library down; `files FOLDER` writes the sample files. */
const [, , what, folder] = process.argv;
if (!folder) throw new Error('Give a folder.');
if (what === 'files') writeFiles(folder);
else {
  const filled = await fillIfEmpty(folder);
  writeForStandIns(join(folder, 'outside'));
  process.stdout.write(filled ? 'The demo library is laid down.\n' : 'The demo library is there already.\n');
}
