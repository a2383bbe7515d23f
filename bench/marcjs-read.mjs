// marcjs (npm), parsing every record of a file and doing nothing with it.
import { createReadStream } from 'node:fs';
import { Marc } from 'marcjs';

const parser = Marc.createStream('Iso2709', 'Parser');
let count = 0;
parser.on('data', () => count++);
parser.on('end', () => process.exit(count > 0 ? 0 : 1));
createReadStream(process.argv[2]).pipe(parser);
