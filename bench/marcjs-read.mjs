// marcjs (npm), parsing every record of a file and doing nothing with it.
import { createReadStream } from 'node:fs';
import { Marc } from 'marcjs';

const stream = Marc.stream(createReadStream(process.argv[2]), 'iso2709');
let count = 0;
stream.on('data', () => count++);
stream.on('end', () => process.exit(count > 0 ? 0 : 1));
