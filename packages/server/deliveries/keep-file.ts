import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { join } from 'node:path';
import { Transform, type TransformCallback } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ProblemError } from '../http/problem';
import type { Settings } from '../settings';

/** A file that has arrived, under a name of its own until it is known what it is. */
export interface KeptFile {
  readonly path: string;
  /** Its first bytes (64 KiB or a little more). */
  readonly head: Uint8Array;
  readonly bytes: number;
  readonly sha256: string;
}

const ARRIVING = 'arriving-';
const HEAD = 65_536;

/** Keeps what a request sends. A file that is too large is refused at once; whatever fails, nothing of it stays. */
export async function keepFile(
  body: IncomingMessage,
  { data, largestFile }: Pick<Settings, 'data' | 'largestFile'>,
): Promise<KeptFile> {
  const told = Number(body.headers['content-length'] ?? 0);
  if (told > largestFile) throw tooLarge(largestFile);
  const folder = join(data, 'deliveries');
  const path = join(folder, `${ARRIVING}${randomUUID()}`);
  await mkdir(folder, { recursive: true });
  const hash = createHash('sha256');
  const head: Buffer[] = [];
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done: TransformCallback) {
      if (bytes < HEAD) head.push(chunk);
      bytes += chunk.length;
      hash.update(chunk);
      done(bytes > largestFile ? tooLarge(largestFile) : null, chunk);
    },
  });
  try {
    // The request itself is not ended with the rest: whoever sends is still to be told why.
    const chunks = body.iterator({ destroyOnReturn: false });
    await pipeline(chunks, counted, createWriteStream(path, { mode: 0o600 }));
  } catch (error) {
    body.resume();
    await rm(path, { force: true });
    throw error;
  }
  return { path, head: Buffer.concat(head), bytes, sha256: hash.digest('hex') };
}

const tooLarge = (most: number): ProblemError =>
  new ProblemError(
    413,
    `A file may have up to ${Math.floor(most / (1024 * 1024)).toLocaleString('en-GB')} MB. Split it and try again.`,
  );

/** Takes away what uploads left that were cut off with the server. */
export async function clearLeftOvers(data: string): Promise<void> {
  const folder = join(data, 'deliveries');
  const names = await readdir(folder).catch(() => []);
  for (const name of names) if (name.startsWith(ARRIVING)) await rm(join(folder, name), { force: true });
}
