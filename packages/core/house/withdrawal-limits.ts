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
  /** The same at single branches. */
  readonly lastCopyAt: readonly { readonly branch: string; readonly lastCopy: LastCopy }[];
  /** Why copies are withdrawn here: offered when a list is started. */
  readonly reasons: readonly string[];
  /** The loans desk is told of copies that went, or are back. */
  readonly tellLoansDesk: boolean;
}

/** The limits as a house keeps them: those that came later may be missing. */
export type KeptLimits = Omit<WithdrawalLimits, 'lastCopyAt' | 'reasons' | 'tellLoansDesk'> &
  Partial<WithdrawalLimits>;

/** The limits of a house that has set up none. */
export const NO_LIMITS: WithdrawalLimits = {
  priceAbove: null,
  youngerThan: 12,
  locations: [],
  fields: [],
  lastCopy: 'delete',
  lastCopyAt: [],
  reasons: ['damaged', 'outdated', 'duplicate', 'lost and written off', 'unused'],
  tellLoansDesk: true,
};

/** All limits, with those of a house that has set up none where it has none. */
export const allLimits = (kept: KeptLimits | undefined): WithdrawalLimits => ({ ...NO_LIMITS, ...kept });
