import { copyFileSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { Loan } from '../../standins/loans-desk';
import { keptJson } from '../store/kept-json';

export const root = resolve(__dirname, '../../..');
/** The demo library as it was laid down before the tests (scripts/jest-setup.mjs). */
const LIBRARY = join(root, '.cache/test-library');

/** Lays the demo library into a folder. */
export const layLibrary = (folder: string): void =>
  copyFileSync(join(LIBRARY, 'osier.sqlite'), join(folder, 'osier.sqlite'));

/** What of it is on loan, as the stand-in of the loans desk is told. */
export const loansOfLibrary = (): Loan[] =>
  keptJson(readFileSync(join(LIBRARY, 'outside/loans.json'), 'utf8'));
