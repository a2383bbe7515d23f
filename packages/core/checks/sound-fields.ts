import type { DataField } from '../marc';

/** Fields that are known to be sound in records of which the same is expected. */
export type SoundFields = Pick<Set<DataField>, 'has' | 'add'>;

/**
 * Fields that come again and again are the same value in every record of a file (`marc/iso2709/shared-fields`): where the checks
 * of each field found nothing, they need not look again, as long as the same is expected of it. What is known belongs
 * to the session of a checker, and begins anew when it has grown large.
 */
export function soundFields(most = 100_000): (expected: string) => SoundFields {
  const known = new Map<string, Set<DataField>>();
  return (expected) => {
    let sounds = known.get(expected);
    if (!sounds) {
      if (known.size >= MOST_EXPECTATIONS) known.clear();
      known.set(expected, (sounds = new Set()));
    }
    if (sounds.size > most) sounds.clear();
    return sounds;
  };
}

/** Languages and house habits together. */
const MOST_EXPECTATIONS = 200;
