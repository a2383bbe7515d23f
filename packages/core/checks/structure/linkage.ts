import { ALL_FORMATS, type Check } from '../finding';
import { inSubfield, wholeField, type Placed } from '../view';

const LINK = /^(\d{3})-(\d\d)/;

export const linkage: Check = {
  rule: 'linkage',
  title: 'Unlinked field in another script (880)',
  group: 'Structure',
  source: 'MARC 21 formats, 880 and $6 (control subfields)',
  formats: ALL_FORMATS,
  run(view, tell) {
    if (!view.linked) return;
    const linked: { p: Placed; i: number; tag: string; number: string }[] = [];
    for (const p of view.data) {
      const i = p.field.subfields.findIndex((s) => s.code === '6');
      const found = i < 0 ? null : LINK.exec(p.field.subfields[i]!.value);
      if (found) linked.push({ p, i, tag: found[1]!, number: found[2]! });
      else if (i >= 0)
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `“${p.field.subfields[i]!.value}” is not a linkage (tag, hyphen, two digits).`,
        });
      else if (p.field.tag === '880')
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: 'This 880 has no $6 (linkage).',
        });
      if (i > 0)
        tell({ severity: 'advice', where: inSubfield(p, i), message: '$6 must be the first subfield.' });
    }
    for (const { p, i, tag, number } of linked) {
      if (number === '00') continue;
      const partner = linked.some(
        (o) => o.p !== p && o.number === number && o.p.field.tag === tag && o.tag === p.field.tag,
      );
      if (!partner)
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `${p.field.tag} is linked to ${tag} number ${number}, which is missing.`,
        });
    }
  },
};
