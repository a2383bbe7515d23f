import type { Field, MarcRecord } from '@osier/core/marc';
import { useCallback, useMemo, useState } from 'react';

/** Fields that are selected, by their places in a record. */
interface Selected {
  readonly record: MarcRecord;
  readonly places: ReadonlySet<number>;
}

/**
 * Where selected fields stand in the record as it is by now: each is followed as what it is, so that an act meets the fields that were
 * chosen and no others. One that was edited stays selected at its place; one that is gone is not.
 */
export function followed({ record: before, places }: Selected, record: MarcRecord): ReadonlySet<number> {
  const at = new Map<Field, number[]>();
  record.fields.forEach((f, i) => at.set(f, [...(at.get(f) ?? []), i]));
  const stood = new Set(before.fields);
  return new Set(
    [...places].flatMap((place) => {
      const field = before.fields[place];
      const now = field && at.get(field)?.shift();
      if (now !== undefined) return [now];
      const instead = record.fields[place];
      const isEdited = instead?.tag === field?.tag && record.fields.length === before.fields.length;
      return instead && isEdited && !stood.has(instead) ? [place] : [];
    }),
  );
}

/** The selection in a record that is edited meanwhile. */
export function useSelected(record: MarcRecord) {
  const [chosen, setChosen] = useState<Selected>({ record, places: new Set() });
  const selected = useMemo(
    () => (chosen.record === record || chosen.places.size === 0 ? chosen.places : followed(chosen, record)),
    [chosen, record],
  );
  const select = useCallback(
    (places: ReadonlySet<number>) => setChosen({ record, places }),
    [record, setChosen],
  );
  return [selected, select] as const;
}
