import { CHUNK } from '../jobs/in-chunks';
import type { Store } from '../store/store';

const NUMBERED = ['record', 'heading', 'holding', 'copy'] as const;
/** Kinds whose new objects accepting gives numbers. */
type Numbered = (typeof NUMBERED)[number];

/** For how many chunks numbers are reserved at once: reserving waits for the chunk that is being written. */
const CHUNKS = 4;

/**
 * Numbers for long work, reserved for some chunks at once. What it gives makes sure of as many of each kind as a chunk needs at most, and gives them one
 * by one. Chunks take from it in turn.
 */
export function numberStock() {
  const stock: Record<Numbered, { next: number; end: number }[]> = {
    record: [],
    heading: [],
    holding: [],
    copy: [],
  };
  const take = (kind: Numbered): number => {
    const ranges = stock[kind];
    while (ranges[0] && ranges[0].next === ranges[0].end) ranges.shift();
    if (!ranges[0]) throw new Error(`More numbers of a ${kind} are taken than were asked for.`);
    return ranges[0].next++;
  };
  return async (store: Store, most: Readonly<Record<Numbered, number>>): Promise<typeof take> => {
    const chunks = most.record < CHUNK ? 1 : CHUNKS;
    for (const kind of NUMBERED) {
      const left = stock[kind].reduce((n, { next, end }) => n + end - next, 0);
      if (left >= most[kind]) continue;
      const count = (most[kind] - left) * chunks;
      const next = await store.nextIds(kind, count);
      stock[kind].push({ next, end: next + count });
    }
    return take;
  };
}
