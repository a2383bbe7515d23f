/** Copies that were published in one year and seen last in one year. */
export interface WeedCell {
  /** Year of publication, and in which the copy was last seen; '' where it is not known. */
  readonly year: string;
  readonly seen: string;
  readonly copies: number;
  /** How many of them are beside a better copy of the same part of the same title. */
  readonly spare: number;
}

/** Which copies are candidates for withdrawal. */
export interface WeedLimits {
  /** Published before this year; null for any. One whose year is not known is no candidate then. */
  readonly publishedBefore: number | null;
  /** Not seen since before this year; null for any. One that was never seen is a candidate. */
  readonly seenBefore: number | null;
  /** Only copies beside a better one: the best of each title stays. */
  readonly spareOnly: boolean;
}

/** How many copies of a cell are candidates. */
export function candidatesIn({ year, seen, copies, spare }: WeedCell, limits: WeedLimits): number {
  const { publishedBefore, seenBefore, spareOnly } = limits;
  const isOld = publishedBefore === null || (year !== '' && Number(year) < publishedBefore);
  const isUnseen = seenBefore === null || seen === '' || Number(seen) < seenBefore;
  return isOld && isUnseen ? (spareOnly ? spare : copies) : 0;
}
