import { fold } from '../../text';
import { change, safe, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const droppedSubdivision: Check = {
  rule: 'dropped-subdivision',
  title: 'Subdivision that this library drops',
  group: 'Subjects',
  source: 'house rules',
  *run({ data }, house) {
    if (house.droppedSubdivisions.length === 0) return;
    const dropped = new Set(house.droppedSubdivisions.map(fold));
    for (const p of data) {
      if (!/^6[0-5]/.test(p.field.tag)) continue;
      for (const { value, i } of subfieldsOf(p, 'vxyz')) {
        if (!dropped.has(fold(value))) continue;
        yield {
          severity: 'advice',
          where: inSubfield(p, i),
          message: `The subdivision “${value}” is dropped in this library.`,
          fix: safe(`Drop “${value}”`, change(p, { subfields: p.field.subfields.filter((_, k) => k !== i) })),
        };
      }
    }
  },
};
