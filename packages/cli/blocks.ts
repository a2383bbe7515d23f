import { leaderFits } from '@osier/core/marc';

/** Where a stretch of ISO 2709 can be cut so that both sides read as they would in one: behind a terminator, before a leader. */
export function cutPoint(bytes: Uint8Array): number {
  for (let end = bytes.lastIndexOf(0x1d); end > 0; end = bytes.lastIndexOf(0x1d, end - 1))
    if (leaderFits(bytes, end + 1)) return end + 1;
  return 0;
}
