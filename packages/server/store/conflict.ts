import type { Versioned } from '@osier/core/changes';

/** Something in the store is not what an act started from. */
export class ConflictError extends Error {
  constructor(
    readonly conflicts: readonly { kind: string; id: number; current: Versioned<unknown> | null }[],
  ) {
    super(
      `Changed since: ${conflicts
        .slice(0, 5)
        .map((c) => `${c.kind} ${c.id}`)
        .join(', ')}`,
    );
    this.name = 'ConflictError';
  }
}
