import { isKind, type Change } from '@osier/core/kinds';

/** Reads a change set as the daybook keeps it. Throws when it is none: the daybook was changed by another hand. */
export function readChanges(text: string): Change[] {
  const kept: unknown = JSON.parse(text);
  if (!Array.isArray(kept) || !kept.every(isChange))
    throw new Error('The daybook has a part that is no change set.');
  return kept;
}

function isChange(kept: unknown): kept is Change {
  if (typeof kept !== 'object' || kept === null) return false;
  const { kind, id, version } = kept as Record<string, unknown>;
  return typeof kind === 'string' && isKind(kind) && Number.isInteger(id) && Number.isInteger(version);
}
