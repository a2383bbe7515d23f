import type { Buckets } from './buckets';

const added = <K>(map: Map<K, number[]>, key: K, value: number) => {
  const there = map.get(key);
  if (there) there.push(value);
  else map.set(key, [value]);
};

/** For each of some, by its place, the earlier ones that it is to be compared with, in their order. */
export function* candidates(
  all: Iterable<Buckets>,
): Generator<readonly [at: number, earlier: readonly number[]]> {
  const exact = new Map<number, number[]>();
  const byWord = new Map<number, number[]>();
  const wordsNear = new Map<number, number[]>();
  let at = -1;
  for (const { exact: own, words } of all) {
    at++;
    const found = new Set<number>();
    const take = (some: readonly number[] | undefined) => {
      for (const one of some ?? []) found.add(one);
    };
    for (const bucket of own) take(exact.get(bucket));
    const near = new Set<number>();
    for (const w of words) for (const n of w.near) for (const word of wordsNear.get(n) ?? []) near.add(word);
    for (const word of near) take(byWord.get(word));
    if (found.size) yield [at, [...found].sort((a, b) => a - b)];
    for (const bucket of own) added(exact, bucket, at);
    for (const { word, near } of words) {
      if (!byWord.has(word)) for (const n of near) added(wordsNear, n, word);
      added(byWord, word, at);
    }
  }
}

/** What a function gives for each of some, one after the other, so that not all of it is held at once. */
export function* eachOf<T, U>(all: readonly T[], work: (one: T) => U): Generator<U> {
  for (const one of all) yield work(one);
}
