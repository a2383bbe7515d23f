import DataLoader from 'dataloader';
import {
  nextExpected,
  unseenBetween,
  type NextOnShelf,
  type ShelfPlace,
} from '../projections/stocktake-places';
import type { Store } from '../store/store';

/** What the shelves hold around the copy that was scanned: what several scanners ask in one moment is asked of the store once. */
export interface ShelfAhead {
  /** The expected copy that stands next and was not scanned yet; null at the end. */
  next(place: ShelfPlace): Promise<NextOnShelf | null>;
  /** How many expected copies between two places were not scanned. */
  between(from: ShelfPlace, to: ShelfPlace): Promise<number>;
}

/** The shelves of a store’s stocktakes. */
export function shelfAhead(store: Store): ShelfAhead {
  // Nothing is remembered: the next scan changes it.
  const nexts = new DataLoader((places: readonly ShelfPlace[]) => nextExpected(store, places), {
    cache: false,
  });
  const gaps = new DataLoader(
    (pairs: readonly { readonly from: ShelfPlace; readonly to: ShelfPlace }[]) => unseenBetween(store, pairs),
    { cache: false },
  );
  return { next: (place) => nexts.load(place), between: (from, to) => gaps.load({ from, to }) };
}
