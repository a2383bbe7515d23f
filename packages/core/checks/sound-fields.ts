import { isMarked, markShared, type DataField } from '../marc';

/** Fields that are known to be sound in records of which the same is expected. */
export interface SoundFields {
  has(field: DataField): boolean;
  add(field: DataField): void;
}

/**
 * Fields that come again and again are the same value in every record (`marc/iso2709/shared-fields`): where the checks of each
 * field found nothing, they need not look again, as long as the same is expected of it. What is known is a mark on the
 * field itself, and is forgotten with it.
 */
export function soundFields(): (expected: string) => SoundFields {
  const known = new Map<string, SoundFields>();
  return (expected) => {
    let sounds = known.get(expected);
    if (!sounds) {
      const mark = { expected };
      sounds = { has: (field) => isMarked(field, mark), add: (field) => markShared(field, mark) };
      if (known.size < MOST) known.set(expected, sounds);
    }
    return sounds;
  };
}

/** Languages and house habits together; beyond them a record begins anew. */
const MOST = 2_000;
