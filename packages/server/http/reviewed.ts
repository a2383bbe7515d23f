import type { Review } from '@osier/contract';
import { createHash } from 'node:crypto';
import { lastEntry } from '../store/entries-since';
import type { Store } from '../store/store';
import { ProblemError } from './problem';

/**
 * What a review shows, gathered while it is worked out. Its token names the moment of the review (the last entry of the daybook that it
 * can have read, and how much was written until then), and a digest of what it shows.
 */
export interface Shown {
  /** Adds an object of the review: its number, its version, and what is told of it. */
  see(...what: readonly unknown[]): void;
  token(): string;
}

/** Begins a review. What is written from now on is newer than it. */
export async function beginReview(store: Store): Promise<Shown> {
  // What is read of a delivery before anything is decided makes no entry, but is a write.
  const moment = `${await lastEntry(store)}-${store.writes()}`;
  const hash = createHash('sha256');
  return {
    see: (...what) => void hash.update(`${JSON.stringify(what)}\n`),
    token: () => `${moment}.${hash.digest('base64url')}`,
  };
}

const momentIn = (token: string): string => token.slice(0, token.indexOf('.'));
const entryIn = (token: string): number => Number(/^\d{1,15}(?=-)/.exec(token)?.[0] ?? -1);
const digestIn = (token: string): string => token.slice(token.indexOf('.') + 1);

/** The refusal of an act whose review shows something else by now. `what` says more, such as what is new. */
export const changedSinceReview = (what = ''): ProblemError =>
  new ProblemError(
    409,
    `Something has changed since this was reviewed. Nothing was done; look at the review again. ${what}`.trim(),
  );

/** Whether two tokens are of reviews that show the same. */
export const showsTheSame = (a: string, b: string): boolean => digestIn(a) === digestIn(b);

/**
 * Refuses an act whose review would show something else now; where nothing was written since, the review is not worked out
 * again. Gives the entry up to which what was reviewed is known to be as it was, undefined for an act without a review.
 */
export async function stillAsReviewed(
  store: Store,
  token: string | undefined,
  review: () => Promise<Review>,
): Promise<number | undefined> {
  if (token === undefined) return undefined;
  if (momentIn(token) === `${await lastEntry(store)}-${store.writes()}`) return entryIn(token);
  const now = (await review()).token;
  if (!showsTheSame(token, now)) throw changedSinceReview();
  return entryIn(now);
}
