import { LOAN_NOT_KNOWN, type LoanAnswer } from '@osier/core/holdings';

/** What the lending system says of some copies. */
export interface LoanAnswers {
  /** Of one copy; `not known` for one that was not asked for. */
  of(barcode: string): LoanAnswer;
  /** Nothing was asked, or at least one answer can be relied on. */
  readonly heard: boolean;
}

/** What the desk is told of a copy: what it is, or that it came back on a day (ISO date). */
export type DeskNotice = { readonly text: string } | { readonly returnedOn: string };

/** What Osier needs of the lending system. */
export interface LoansDesk {
  /** How copies stand. Answers may be some seconds old, unless they are asked for `anew`. Never rejects: silence is `not known`. */
  ask(barcodes: readonly string[], how?: { readonly anew: boolean }): Promise<LoanAnswers>;
  /**
   * Tells of some copies what they are, or checks them in. Gives by barcode whether the desk took it; what it did not answer about is not in it. Never rejects.
   */
  tell(notices: ReadonlyMap<string, DeskNotice>): Promise<ReadonlyMap<string, boolean>>;
  /** Whether it can be talked to now. */
  reachable(): Promise<boolean>;
  readonly configured: boolean;
  close(): void;
}

/** Answers by barcode. */
export const loanAnswers = (known: ReadonlyMap<string, LoanAnswer>): LoanAnswers => ({
  of: (barcode) => known.get(barcode) ?? LOAN_NOT_KNOWN,
  heard: known.size === 0 || [...known.values()].some((a) => a.state !== 'not known'),
});

/** A library without a lending system: nothing is on loan as far as Osier knows. */
export const noLoansDesk: LoansDesk = {
  ask: () => Promise.resolve({ of: () => ({ state: 'available', due: '' }), heard: true }),
  tell: () => Promise.resolve(new Map()),
  reachable: () => Promise.resolve(false),
  configured: false,
  close: () => undefined,
};
