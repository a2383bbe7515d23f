// `npm run demo [-- --fresh]`: installs, builds, lays the demo library down, starts the server and the stand-ins.
import { existsSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { root } from './install.mjs';
import { layLibrary } from './lay-library.mjs';
import { step } from './say.mjs';
import { serve } from './serve.mjs';

const data = resolve(process.env.OSIER_DATA ?? join(root, 'data', 'demo'));

/** The first of six neighbouring ports that are free, from `from` on. */
async function freePorts(from) {
  const free = (port) =>
    new Promise((yes) => {
      const probe = createServer()
        .once('error', () => yes(false))
        .listen(port, '127.0.0.1', () => probe.close(() => yes(true)));
    });
  for (let port = from; port < from + 200; port += 6)
    if ((await Promise.all([0, 1, 2, 3, 4, 5].map((n) => free(port + n)))).every(Boolean)) return port;
  throw new Error(`No six free ports in a row from ${from} on.`);
}

try {
  await ensureBuilt();
  if (process.argv.includes('--fresh') && existsSync(data)) {
    if (!existsSync(join(data, 'outside')))
      throw new Error(`${data} holds no demo library, so --fresh does not touch it.`);
    rmSync(data, { recursive: true });
  }
  await step('Laying the demo library down', () => layLibrary(data));
  const port = Number(process.env.OSIER_PORT ?? 4600);
  const outside = await freePorts(Number(process.env.OSIER_OUTSIDE_PORT ?? port + 11));
  process.stdout.write(
    `· Hand scanner (simulated):  http://127.0.0.1:${outside + 1}\n· Sample files to drop in:   demo/files\n`,
  );
  serve([
    {
      script: 'packages/standins/dist/main.mjs',
      env: { OSIER_OUTSIDE_PORT: String(outside), OSIER_OUTSIDE_DATA: join(data, 'outside') },
    },
    {
      script: 'packages/server/dist/main.mjs',
      env: {
        OSIER_DEMO: '1',
        OSIER_DATA: data,
        OSIER_PORT: String(port),
        OSIER_LOG: process.env.OSIER_LOG ?? 'warn',
        OSIER_LOANS_DESK: `sip2://127.0.0.1:${outside}`,
        OSIER_LINK_HOSTS: `wickmere.example=127.0.0.1:${outside + 4},neighbours.wickmere.example=127.0.0.1:${outside + 2},unsafe.wickmere.example=127.0.0.1:${outside + 5}`,
        OSIER_NEIGHBOUR_HOSTS: `neighbours.wickmere.example=127.0.0.1:${outside + 2},registry.wickmere.example=127.0.0.1:${outside + 3}`,
        OSIER_SCANNER: `http://127.0.0.1:${outside + 1}/events`,
      },
    },
  ]);
} catch (error) {
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
}
