import { look, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const allCapitals: Check = {
  rule: 'all-capitals',
  title: 'Title in capital letters',
  group: 'Title',
  source: 'common practice, no source',
  needs: ['245'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('245'))
      for (const { code, value, i } of subfieldsOf(p, 'ab')) {
        if (/[a-z]/.test(value)) continue;
        const letters = value.replace(/[^\p{L}]/gu, '');
        const words = value
          .trim()
          .split(/\s+/)
          .filter((w) => /\p{L}{2}/u.test(w)).length;
        if (
          letters.length < 8 ||
          words < 2 ||
          letters !== letters.toUpperCase() ||
          letters === letters.toLowerCase()
        )
          continue;
        const small = value.toLowerCase();
        const sentence = code === 'a' ? small.replace(/\p{L}/u, (c) => c.toUpperCase()) : small;
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `The title is in capital letters. Write it as a sentence; names keep their capitals.`,
          fix: look(`Write “${sentence.slice(0, 40).trim()}”`, setText(p, i, sentence)),
        });
      }
  },
};
