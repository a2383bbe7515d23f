import { cpSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import { root, run } from './install.mjs';

/** Lays the demo library down in a folder, checked and compared as a running server would have it; one that is there is left alone. */
export async function layLibrary(folder, options = {}) {
  const isThere = existsSync(join(folder, 'osier.sqlite'));
  // `npm test` lays it down once; the journeys begin with copies of that.
  const { OSIER_LAID: laidBefore } = process.env;
  if (laidBefore && !isThere) return cpSync(laidBefore, folder, { recursive: true });
  const env = { ...process.env, OSIER_DATA: folder, OSIER_ROOT: root, OSIER_DEMO: '1', OSIER_LOANS_DESK: '' };
  const node = async (script, ...args) =>
    (await run(process.execPath, [join(root, script), ...args], { env, ...options })) === 0;
  const laid =
    (await node('demo/dist/main.mjs', 'fill', folder)) &&
    (isThere || (await node('packages/server/dist/settle.mjs')));
  if (!laid) throw new Error('The demo library could not be laid down.');
}
