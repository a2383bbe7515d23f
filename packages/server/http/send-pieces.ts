import type { Response } from 'express';

/** Sends a file as it is made, no faster than it is taken; ends when whoever asked has gone. */
export async function sendPieces(
  res: Response,
  name: string,
  type: string,
  parts: AsyncIterable<string | Uint8Array>,
): Promise<undefined> {
  res.setHeader('content-disposition', `attachment; filename="${name}"`);
  res.type(type);
  for await (const part of parts) {
    if (res.destroyed) return undefined;
    if (!res.write(part)) await new Promise<void>((done) => res.once('drain', done).once('close', done));
  }
  res.end();
  return undefined;
}
