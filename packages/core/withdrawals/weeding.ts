/** By what the use of a copy is known: its last loan, or when it was last seen on the shelf. */
export const WEED_USES = ['lent', 'seen'] as const;
export type WeedUse = (typeof WEED_USES)[number];

/** Copies that were published in one year and used last in one year. */
export interface WeedCell {
  /** Year of publication; '' where it is not known. */
  readonly year: string;
  /** In which they were lent or seen last; '' where they never were, null where it is not known. */
  readonly used: string | null;
  readonly copies: number;
  /** How many of them are beside a better copy of the same part of the same title. */
  readonly spare: number;
}

/** Which copies are candidates for withdrawal. */
export interface WeedLimits {
  /** Published before this year; null for any. One whose year is not known is no candidate then. */
  readonly publishedBefore: number | null;
  /** Not used since before this year; null for any. One that never was is a candidate, one of which that is not known is none. */
  readonly usedBefore: number | null;
  /** Only copies beside a better one: the best of each title stays. */
  readonly spareOnly: boolean;
}

/** How many copies of a cell are candidates. */
export function candidatesIn({ year, used, copies, spare }: WeedCell, limits: WeedLimits): number {
  const { publishedBefore, usedBefore, spareOnly } = limits;
  const isOld = publishedBefore === null || (year !== '' && Number(year) < publishedBefore);
  const isUnused = usedBefore === null || used === '' || (used !== null && Number(used) < usedBefore);
  return isOld && isUnused ? (spareOnly ? spare : copies) : 0;
}
