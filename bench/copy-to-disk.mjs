import { closeSync, copyFileSync, fsyncSync, openSync } from 'node:fs';

/** Copies a file and waits until it is on the disk: what is measured afterwards does not wait for it. */
export function copyToDisk(from, to) {
  copyFileSync(from, to);
  const file = openSync(to, 'r+');
  fsyncSync(file);
  closeSync(file);
}
