/** What became of a copy of a home: each is exactly one of these. */
export const COPY_OUTCOMES = ['stood', 'missing', 'skipped', 'on loan', 'seen since', 'other'] as const;
export type CopyOutcome = (typeof COPY_OUTCOMES)[number];
