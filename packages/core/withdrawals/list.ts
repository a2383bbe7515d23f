/** A list of copies to withdraw, prepared by one person and confirmed by the head. */
export interface WithdrawalListValue {
  readonly name: string;
  readonly branch: string;
  readonly reason: string;
  readonly state: 'open' | 'done';
  /** Who prepares it. */
  readonly by: string;
  /** The person who is to confirm it; absent: anybody who may. */
  readonly confirmer?: number;
  /** ISO date. */
  readonly madeOn: string;
}
