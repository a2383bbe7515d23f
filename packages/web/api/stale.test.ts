import type { Changed } from '@osier/contract';
import { isStale } from './stale';

const changed = (kinds: Changed['kinds']): Changed => ({ entry: 1, kinds });

test.each<[string, Changed['kinds'], boolean]>([
  ['/today', { recipe: [1] }, true],
  ['/daybook', { recipe: [1] }, true],
  ['/records?q=eels', { record: [4] }, true],
  ['/records', { recipe: [4] }, false],
  ['/records/4', { record: [4] }, true],
  ['/records/4', { record: [5] }, false],
  ['/records/4', { record: null }, true],
  // A copy is told by its own number: it may be one of this record.
  ['/records/4', { record: [5], copy: [9] }, true],
  ['/records/4', { heading: [2] }, false],
  ['/headings/2', { heading: [3] }, false],
  ['/headings/2', { heading: [2, 3] }, true],
  ['/headings/look-alikes', { distinct: [1] }, true],
  ['/stocktakes/7', { stocktake: [8] }, false],
  ['/stocktakes/7', { stocktake: [7] }, true],
  ['/stocktakes/7', { copy: [1] }, true],
  ['/deliveries/3/summary', { incoming: [1] }, true],
  ['/deliveries/3/summary', { record: [1] }, false],
  ['/set-up', { house: [1] }, true],
  ['/set-up', { record: [1] }, false],
  ['/welcome', { record: [1] }, false],
  // What nobody has said anything about is read again.
  ['/something-new', { record: [1] }, true],
])('%s after %p: %p', (path, kinds, stale) =>
  expect(isStale({ queryKey: [path] }, changed(kinds))).toBe(stale),
);
