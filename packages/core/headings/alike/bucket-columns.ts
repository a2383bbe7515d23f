import { bucketsIn, type Buckets } from './buckets';

/** Numbers in lists: those of list `i` stand in `values` from `starts[i]` up to, without, `starts[i + 1]`. */
export interface NumberLists<T extends Uint32Array | Float64Array = Uint32Array> {
  readonly starts: Uint32Array;
  readonly values: T;
}

/** The buckets of some forms as columns of numbers: small, and handed from one thread to another in no time. */
export interface BucketColumns {
  /** By form: all its buckets, those of its words last. */
  readonly own: NumberLists<Float64Array>;
  /** The words of the forms, each once. */
  readonly words: Float64Array;
  /** By place in `words`: the words that lie near it. */
  readonly near: NumberLists<Float64Array>;
}

/** Puts lists one behind the other. */
function listed(lists: readonly (readonly number[])[]): NumberLists<Float64Array> {
  const starts = new Uint32Array(lists.length + 1);
  lists.forEach((list, i) => (starts[i + 1] = starts[i]! + list.length));
  const values = new Float64Array(starts[lists.length]!);
  lists.forEach((list, i) => values.set(list, starts[i]));
  return { starts, values };
}

/** The buckets of forms, in their order, as columns. */
export function bucketColumns(all: Iterable<Buckets>): BucketColumns {
  const near = new Map<number, readonly number[]>();
  const own: number[][] = [];
  for (const buckets of all) {
    own.push(bucketsIn(buckets));
    for (const w of buckets.words) near.set(w.word, w.near);
  }
  return { own: listed(own), words: Float64Array.from(near.keys()), near: listed([...near.values()]) };
}
