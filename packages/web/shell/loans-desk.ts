/** How the loans desk stands, in shape and words. */
export const LOANS_DESK = {
  here: { kind: 'clear', text: 'Loans desk answers' },
  silent: { kind: 'caution', text: 'Loans desk does not answer' },
  none: { kind: 'information', text: 'No loans desk is set up' },
} as const;
