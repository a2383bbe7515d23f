import { shellWords as wording } from './words';
/** How the loans desk stands, in shape and words. */
export const LOANS_DESK = {
  here: { kind: 'clear', text: wording.loansDeskAnswers },
  silent: { kind: 'caution', text: wording.loansDeskDoesNotAnswer },
  none: { kind: 'information', text: wording.noLoansDeskIsSet },
} as const;
