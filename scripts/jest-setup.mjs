import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';
import { layLibrary } from './lay-library.mjs';

// The server's reading thread is a bundle of its own; tests run the same file. The demo library is laid down once: every test that
// wants it begins with a copy (packages/server/testing/running.ts).
export default async function setup() {
  const { bundle } = await import('./bundle.mjs');
  await bundle(['server', 'standins', 'cli', 'demo']);
  rmSync(join(root, '.cache/test-empty.sqlite'), { force: true });
  const library = join(root, '.cache/test-library');
  rmSync(library, { recursive: true, force: true });
  await layLibrary(library, { stdio: ['ignore', 'ignore', 'inherit'] });
}
