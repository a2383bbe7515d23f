/** Rows of a review that are sent at once. */
export const PAGE_ROWS = 200;

/** A page of a review, filled while the whole is worked out: exceptions before the rest, each in its order. */
export interface ReviewPage<T> {
  /** Counts a row; it is only made when it can be on the page. */
  offer(isException: boolean, row: () => T): void;
  /** The rows of the page, and how many there are behind it. */
  take(): { rows: T[]; more: number };
}

/** The page that begins with row `from`. */
export function reviewPage<T>(from = 0): ReviewPage<T> {
  const end = from + PAGE_ROWS;
  const exceptions: T[] = [];
  const rest: { at: number; row: T }[] = [];
  let [first, others] = [0, 0];
  return {
    offer(isException, row) {
      if (isException) {
        if (first >= from && first < end) exceptions.push(row());
        first++;
        // What stands behind one more exception moves on, off the page.
        if (rest.length > 0 && first + rest.at(-1)!.at >= end) rest.pop();
      } else {
        if (first + others < end) rest.push({ at: others, row: row() });
        others++;
      }
    },
    take() {
      const onPage = rest.filter(({ at }) => first + at >= from && first + at < end).map(({ row }) => row);
      return { rows: [...exceptions, ...onPage], more: Math.max(0, first + others - end) };
    },
  };
}
