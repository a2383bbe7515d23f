/** What becomes of a record that loses its last copy: it goes, it stays unseen by the public, it stays as it is. */
export const LAST_COPY = ['delete', 'suppress', 'keep'] as const;
export type LastCopy = (typeof LAST_COPY)[number];

/** From when on a copy is looked at twice before it is withdrawn. */
export interface WithdrawalLimits {
  /** In hundredths of the house's currency: copies that cost more; null for none. */
  readonly priceAbove: number | null;
  /** Copies acquired less than so many months ago; 0 for none. */
  readonly youngerThan: number;
  /** Codes of locations whose copies are kept. */
  readonly locations: readonly string[];
  /** Tags whose fields mark a record as one to keep; `.` stands for any digit. */
  readonly fields: readonly string[];
  /** What becomes of records that lose their last copy, where nothing else is chosen. */
  readonly lastCopy: LastCopy;
}

/** The limits of a house that has set up none. */
export const NO_LIMITS: WithdrawalLimits = {
  priceAbove: null,
  youngerThan: 12,
  locations: [],
  fields: [],
  lastCopy: 'delete',
};
