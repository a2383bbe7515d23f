import type { Versioned } from '@osier/core/changes';

/** Something in the store that is not what an act started from, or that stands in its way. */
export interface Stale {
  readonly kind: string;
  readonly id: number;
  /** What the act took it for, by which it is named when it is gone; null when not known. */
  readonly label?: unknown;
  readonly current: Versioned<unknown> | null;
  /** It has what there may be only once (a barcode, a name, a place). */
  readonly takes?: string;
  /** The kind of the things that hang on it and would hang on nothing. */
  readonly dependsOn?: string;
}

/** Something in the store is not what an act started from. */
export class ConflictError extends Error {
  constructor(readonly conflicts: readonly Stale[]) {
    super(
      `Changed since: ${conflicts
        .slice(0, 5)
        .map((c) => `${c.kind} ${c.id}`)
        .join(', ')}`,
    );
    this.name = 'ConflictError';
  }
}

/** An act that would change nothing; it gets no entry in the daybook. */
export class NothingChanged extends Error {
  constructor() {
    super('Nothing would change.');
    this.name = 'NothingChanged';
  }
}

/** A plan that was allowed a moment before, and is refused now that it was made anew: `cause` says why. */
export class ChangedSince extends Error {
  constructor(cause: unknown) {
    super('Something has changed since.', { cause });
    this.name = 'ChangedSince';
  }
}
