/** How a lending system says a copy stands; `not known` when it did not say, or said nothing that can be relied on. */
export const LOAN_STATES = [
  'available',
  'on loan',
  'on order',
  'in process',
  'on the hold shelf',
  'to be re-shelved',
  'in transit',
  'claimed returned',
  'lost',
  'missing',
  'not known',
] as const;
export type LoanState = (typeof LOAN_STATES)[number];

/** What a lending system says of one copy. */
export interface LoanAnswer {
  readonly state: LoanState;
  /** Day a loan is due (ISO date where the desk gives one), or ''. */
  readonly due: string;
  /** The fee that a reader is charged for it, with its currency, as the desk writes it; absent when there is none. */
  readonly charge?: string;
}

/** Silence of the loans desk: it is never taken for "not on loan". */
export const LOAN_NOT_KNOWN: LoanAnswer = { state: 'not known', due: '' };

/** Due date of a copy on loan ("date not given" where there is none), '' when it is not on loan, null when that is not known. */
export function dueOf({ state, due }: LoanAnswer): string | null {
  if (state === 'not known') return null;
  return state === 'on loan' ? due || 'date not given' : '';
}
