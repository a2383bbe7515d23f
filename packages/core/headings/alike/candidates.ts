import { bucketColumns } from './bucket-columns';
import { indexBuckets, matesFinder } from './bucket-index';
import type { Buckets } from './buckets';

/** For each of some, by its place, the earlier ones that it is to be compared with, in their order. */
export function* candidates(
  all: Iterable<Buckets>,
): Generator<readonly [at: number, earlier: readonly number[]]> {
  const index = indexBuckets([bucketColumns(all)]);
  const matesOf = matesFinder(index);
  for (let at = 1; at < index.own.starts.length - 1; at++) {
    const earlier = matesOf(at).filter((other) => other < at);
    if (earlier.length) yield [at, earlier.sort((a, b) => a - b)];
  }
}

/** What a function gives for each of some, one after the other, so that not all of it is held at once. */
export function* eachOf<T, U>(all: readonly T[], work: (one: T) => U): Generator<U> {
  for (const one of all) yield work(one);
}
