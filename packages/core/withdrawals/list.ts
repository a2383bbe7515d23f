/** A list of copies to withdraw, prepared by one person and confirmed by the head. */
export interface WithdrawalListValue {
  readonly name: string;
  readonly branch: string;
  readonly reason: string;
  readonly state: 'open' | 'done';
  /** Who prepares it. */
  readonly by: string;
  /** ISO date. */
  readonly madeOn: string;
}
