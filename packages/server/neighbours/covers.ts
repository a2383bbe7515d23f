import type { Response } from 'express';
import type { KnownHosts } from '../links/own-network';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { getAnswer } from './http-get';
import { NeighbourFailure, type PicturePort } from './ports';

const LARGEST_PICTURE = 2 * 1024 * 1024;
/** Pictures by what their files begin with; none that can carry script. */
const BEGINNINGS: readonly (readonly [media: string, test: (bytes: Buffer) => boolean])[] = [
  ['image/png', (b) => b.subarray(0, 8).toString('latin1') === '\x89PNG\r\n\x1a\n'],
  ['image/jpeg', (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff],
  ['image/gif', (b) => /^GIF8[79]a$/.test(b.subarray(0, 6).toString('latin1'))],
  ['image/webp', (b) => /^RIFF....WEBP$/s.test(b.subarray(0, 12).toString('latin1'))],
];
/** What a cover may be. */
export const PICTURE_MEDIA = BEGINNINGS.map(([media]) => media);

/** Gets pictures over HTTP. Of the names that are known inside, a neighbour's record leads to its own only; no password goes along. */
export const picturesOf =
  (hosts: KnownHosts): PicturePort =>
  (neighbour, address, signal) => {
    const own = URL.canParse(neighbour.address) ? new URL(neighbour.address).hostname : '';
    return getAnswer(address, {
      hosts: new Map([...hosts].filter(([name]) => name === own)),
      signOn: null,
      signal,
      accept: PICTURE_MEDIA.join(', '),
      largest: LARGEST_PICTURE,
    });
  };

/** Sends the cover that a record of a neighbour links to, so that no browser asks outside; 404 where there is no picture. */
export async function sendCover(
  { store, neighbours }: Services,
  id: number,
  address: string,
  signal: AbortSignal,
  res: Response,
): Promise<undefined> {
  const held = await store.read('neighbour', id);
  if (!held) throw notFound(`Neighbour ${id}`);
  if (!URL.canParse(address) || !/^https?:$/.test(new URL(address).protocol))
    throw wrong('address', 'The address of a cover begins with http:// or https://.');
  const bytes = await neighbours.asking.picture(id, held.value, address, signal).catch((error: unknown) => {
    if (error instanceof NeighbourFailure) throw notFound('A picture at this address');
    throw error;
  });
  const file = Buffer.from(bytes);
  const media = BEGINNINGS.find(([, test]) => test(file))?.[0];
  if (media === undefined) throw notFound('A picture at this address');
  res.setHeader('cache-control', 'private, max-age=3600');
  res.setHeader('content-security-policy', "default-src 'none'");
  res.type(media).send(file);
  return undefined;
}
