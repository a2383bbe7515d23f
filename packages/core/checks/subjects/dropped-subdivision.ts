import { foldOnce } from '../fold-once';
import type { Subfield } from '../../marc';
import { fold } from '../../text';
import { change, safe, type Check } from '../finding';
import { SUBJECT_TAGS, inSubfield, lastTextOf, subfieldsOf, type Placed } from '../view';

export const droppedSubdivision: Check = {
  rule: 'dropped-subdivision',
  title: 'Subdivision that this library drops',
  group: 'Subjects',
  source: 'house rules',
  needs: SUBJECT_TAGS,
  each: true,
  run({ subjects }, tell, house) {
    if (house.droppedSubdivisions.length === 0) return;
    const dropped = folded(house.droppedSubdivisions);
    for (const p of subjects) {
      for (const { value, i } of subfieldsOf(p, 'vxyz')) {
        if (!dropped.has(foldOnce(value))) continue;
        tell({
          severity: 'advice',
          where: inSubfield(p, i),
          message: `The subdivision “${value}” is dropped in this library.`,
          fix: safe(`Drop “${value}”`, change(p, { subfields: withoutPart(p, i) })),
        });
      }
    }
  },
};

/** The heading without a part; the full stop that ended it ends what is left. */
function withoutPart(p: Placed, i: number): readonly Subfield[] {
  const ended = i === lastTextOf(p) && /\.\s*$/.test(p.field.subfields[i]!.value);
  const left = p.field.subfields.filter((_, k) => k !== i);
  return left.map((s, k) =>
    ended && k === i - 1 && /[\p{L}\d]$/u.test(s.value) ? { ...s, value: `${s.value}.` } : s,
  );
}

let last: { of: readonly string[]; set: Set<string> } | undefined;
/** House rules are the same value from record to record. */
function folded(list: readonly string[]): Set<string> {
  if (last?.of !== list) last = { of: list, set: new Set(list.map(fold)) };
  return last.set;
}
