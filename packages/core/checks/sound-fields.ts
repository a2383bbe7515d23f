import { isShared, type DataField } from '../marc';

/** Fields remembered in all, twice this at most. */
const MOST = 40_000;

/** Fields that are known to be sound in records of which the same is expected. */
export interface SoundFields {
  has(field: DataField): boolean;
  add(field: DataField): void;
}

/**
 * Fields that come again and again are the same value in every record (`marc/iso2709/shared-fields`): where the checks of each
 * field found nothing, they need not look again, as long as the same is expected of it. The fields of the last records are
 * remembered, not all there ever were: two generations, the older of which is let go when the younger is full.
 */
export function soundFields(): (expected: string) => SoundFields {
  let young = new Map<string, Set<DataField>>();
  let old: typeof young = new Map();
  let count = 0;
  const put = (expected: string, field: DataField) => {
    if (count >= MOST) {
      old = young;
      young = new Map();
      count = 0;
    }
    let known = young.get(expected);
    if (!known) young.set(expected, (known = new Set<DataField>()));
    known.add(field);
    count++;
  };
  return (expected) => ({
    has(field) {
      if (young.get(expected)?.has(field)) return true;
      if (!old.get(expected)?.has(field)) return false;
      put(expected, field);
      return true;
    },
    add(field) {
      if (isShared(field)) put(expected, field);
    },
  });
}
