import { copyFileSync, existsSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { openStore } from '../store/open-store';
import type { Store } from '../store/store';

export const root = resolve(__dirname, '../../..');
/** The demo library as it was laid down before the tests (scripts/jest-setup.mjs). */
export const LIBRARY = join(root, '.cache/test-library');

/** Lays the demo library into a folder. */
export const layLibrary = (folder: string): void =>
  copyFileSync(join(LIBRARY, 'osier.sqlite'), join(folder, 'osier.sqlite'));

/** A library with nothing in it: made by the first test that wants one, copied for all others, because its migrations take two seconds. */
const EMPTY = join(root, '.cache/test-empty.sqlite');

/** Opens a store with nothing in it in a folder. */
export async function openEmpty(folder: string): Promise<Store> {
  if (!existsSync(EMPTY)) {
    const first = mkdtempSync(join(tmpdir(), 'osier-empty-'));
    await (await openStore(first)).close();
    // Other test files may be doing the same: the last one stays, and none is seen half made.
    const made = `${EMPTY}.${process.pid}`;
    copyFileSync(join(first, 'osier.sqlite'), made);
    renameSync(made, EMPTY);
    rmSync(first, { recursive: true });
  }
  copyFileSync(EMPTY, join(folder, 'osier.sqlite'));
  return openStore(folder);
}
