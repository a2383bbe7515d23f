import { closeSync, openSync, writeSync } from 'node:fs';

const ROOM = 1 << 20;

/** Standard output or a file, written in large pieces. */
export interface Output {
  put(bytes: Uint8Array): void;
  end(): void;
}

export function output(path: string | undefined): Output {
  const descriptor = path === undefined ? 1 : openSync(path, 'w');
  let small: Uint8Array[] = [];
  let used = 0;
  const flush = () => {
    if (used) writeAll(descriptor, Buffer.concat(small));
    [small, used] = [[], 0];
  };
  return {
    put(bytes) {
      if (bytes.length >= ROOM) {
        flush();
        writeAll(descriptor, bytes);
        return;
      }
      small.push(bytes);
      used += bytes.length;
      if (used >= ROOM) flush();
    },
    end() {
      flush();
      if (path !== undefined) closeSync(descriptor);
    },
  };
}

function writeAll(descriptor: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) {
    try {
      at += writeSync(descriptor, bytes, at);
    } catch (error) {
      // A pipe that is full for the moment.
      if ((error as NodeJS.ErrnoException).code !== 'EAGAIN') throw error;
    }
  }
}
