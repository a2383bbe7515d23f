import { fold } from '../../text';
import { change, safe, type Check } from '../finding';
import { SUBJECT_TAGS, inSubfield, subfieldsOf } from '../view';
import { withoutParts } from '../without-parts';

export const droppedSubdivision: Check = {
  rule: 'deleted-subdivision',
  title: 'Subdivision deleted in this library',
  group: 'Subjects',
  source: 'house rules',
  needs: SUBJECT_TAGS,
  each: true,
  run({ subjects, memory }, tell, house) {
    if (house.droppedSubdivisions.length === 0) return;
    const dropped = memory.of(folded, house.droppedSubdivisions);
    for (const p of subjects) {
      for (const { value, i } of subfieldsOf(p, 'vxyz')) {
        if (!dropped.has(memory.of(fold, value))) continue;
        tell({
          severity: 'advice',
          where: inSubfield(p, i),
          message: `Subdivision “${value}” is deleted in this library (house rules).`,
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

const folded = (list: readonly string[]): ReadonlySet<string> => new Set(list.map(fold));
