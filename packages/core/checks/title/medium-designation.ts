import { dropSubfield, look, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const mediumDesignation: Check = {
  rule: 'medium-designation',
  title: 'General material designation with 336–338',
  group: 'Title',
  source: 'MARC 21, 245 $h and 336–338',
  run(view, tell) {
    const typed = view.tagged('336').length > 0 || view.tagged('338').length > 0;
    for (const p of view.tagged('245'))
      for (const { value, i } of subfieldsOf(p, 'h')) {
        if (typed)
          tell({
            severity: 'advice',
            where: inSubfield(p, i),
            message: `“${value.replace(/\s*[/:;]$/, '')}” repeats what 336–338 say.`,
            fix: look('Take it away', keepingMark(p, i)),
          });
        else if (!/^\[.+\]/.test(value))
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: 'A general material designation is in square brackets.',
          });
      }
  },
};

/** The mark that ends $h belongs to what follows: it moves to the subfield before. */
function keepingMark(p: Parameters<typeof dropSubfield>[0], i: number) {
  const mark = /\s*[/:;=]$/.exec(p.field.subfields[i]!.value)?.[0];
  const edit = dropSubfield(p, i);
  if (!mark || i === 0 || edit.op !== 'replace') return edit;
  const subfields = p.field.subfields.flatMap((s, k) =>
    k === i ? [] : [k === i - 1 ? { ...s, value: `${s.value.trimEnd()} ${mark.trim()}` } : s],
  );
  return { ...edit, field: { ...p.field, subfields } };
}
