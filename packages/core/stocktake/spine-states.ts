/** How a spine stands. */
export const SPINE_STATES = [
  'in place',
  'misplaced',
  'away',
  'found',
  'unknown',
  'misread',
  'missing',
] as const;
export type SpineState = (typeof SPINE_STATES)[number];
