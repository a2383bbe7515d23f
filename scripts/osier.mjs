// `npm run osier -- …`: the command line, in this process.
import { pathToFileURL } from 'node:url';
import { ensureCli } from './cli-bundle.mjs';

const script = await ensureCli();
if (process.env.INIT_CWD) process.chdir(process.env.INIT_CWD);
// Its threads run the same script.
process.argv[1] = script;
await import(pathToFileURL(script).href);
