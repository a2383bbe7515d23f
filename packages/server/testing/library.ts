import { copyFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

export const root = resolve(__dirname, '../../..');
/** The demo library as it was laid down before the tests (scripts/jest-setup.mjs). */
export const LIBRARY = join(root, '.cache/test-library');

/** Lays the demo library into a folder. */
export const layLibrary = (folder: string): void =>
  copyFileSync(join(LIBRARY, 'osier.sqlite'), join(folder, 'osier.sqlite'));
