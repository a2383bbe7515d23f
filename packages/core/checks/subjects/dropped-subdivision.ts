import { foldOnce } from '../fold-once';
import { fold } from '../../text';
import { change, safe, type Check } from '../finding';
import { SUBJECT_TAGS, inSubfield, subfieldsOf } from '../view';
import { withoutParts } from '../without-parts';

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
          fix: safe(
            `Drop “${value}”`,
            change(
              p,
              withoutParts(p.field, (_, k) => k === i),
            ),
          ),
        });
      }
    }
  },
};

let last: { of: readonly string[]; set: Set<string> } | undefined;
/** House rules are the same value from record to record. */
function folded(list: readonly string[]): Set<string> {
  if (last?.of !== list) last = { of: list, set: new Set(list.map(fold)) };
  return last.set;
}
