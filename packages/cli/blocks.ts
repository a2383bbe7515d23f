import { iso2709Reader, leaderFits } from '@osier/core/marc';

/** Where a stretch of ISO 2709 can be cut so that both sides read as they would in one: behind a terminator, before a leader. */
export function cutPoint(bytes: Uint8Array): number {
  for (let end = bytes.lastIndexOf(0x1d); end > 0; end = bytes.lastIndexOf(0x1d, end - 1))
    if (leaderFits(bytes, end + 1)) return end + 1;
  return 0;
}

/** How many records a stretch will give when it is read; whole ones are counted without reading them. */
export function countRecords(bytes: Uint8Array, offset: number): number {
  let count = 0;
  const reader = iso2709Reader({ offset, unread: true, give: () => void count++ });
  reader.push(bytes);
  reader.end();
  return count;
}
