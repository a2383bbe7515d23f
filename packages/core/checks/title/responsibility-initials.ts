import { look, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const responsibilityInitials: Check = {
  rule: 'responsibility-initials',
  title: 'Spaces between initials in the statement of responsibility',
  group: 'Title',
  source: 'common practice (LC-PCC policy for RDA 1.7.6: initials without blanks in a transcribed statement)',
  needs: ['245'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('245'))
      for (const { value, i } of subfieldsOf(p, 'c')) {
        if (!hasOpenPoints(value)) continue;
        const at = value.search(/(?<![\p{L}.])\p{Lu}\. \p{Lu}\./u);
        if (at < 0) continue;
        const corrected = value.replace(/(?<![\p{L}.])(\p{Lu}\.) (?=\p{Lu}\.)/gu, '$1');
        tell({
          severity: 'advice',
          where: inSubfield(p, i, at, at + 5),
          message: `Initials in the statement of responsibility are not spaced: “${value.slice(at, at + 16)}”.`,
          fix: look('Delete the spaces', setText(p, i, corrected)),
        });
      }
  },
};

/** Two full stops with a blank and one or two units of UTF-16 between them. */
function hasOpenPoints(text: string): boolean {
  for (let at = text.indexOf('. '); at >= 0; at = text.indexOf('. ', at + 1))
    if (text[at + 3] === '.' || text[at + 4] === '.') return true;
  return false;
}
