// `npm run osier -- …`: the command line, bundled when its sources changed.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { bundle, root } from './bundle.mjs';

await bundle(['cli']);
const done = spawnSync(
  process.execPath,
  [join(root, 'packages/cli/dist/osier.mjs'), ...process.argv.slice(2)],
  { stdio: 'inherit', cwd: process.env.INIT_CWD ?? process.cwd() },
);
process.exit(done.status ?? 1);
