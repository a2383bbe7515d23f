import { type Check } from '../finding';
import { inControl, textsIn } from '../view';
import { bookFixed } from './book-008';

export const bibliography: Check = {
  rule: 'bibliography',
  title: 'Bibliography or index: 504 and 008 differ',
  group: 'Coded fields',
  source: 'MARC 21, 504; 008/24-27 (b) and 008/31 of books',
  needs: ['504'],
  run(view, tell) {
    const fixed = bookFixed(view);
    if (!fixed) return;
    const notes = textsIn(view.tagged('504'), 'a');
    const hasBibliography = notes.some((n) => /bibliograph|references/i.test(n));
    const hasIndex = notes.some((n) => /\bindex(es)?\b/i.test(n));
    if (hasBibliography && fixed.value.slice(24, 28) === '    ')
      tell({
        severity: 'advice',
        where: inControl('008', fixed.at, 24, 28),
        message: '504 notes a bibliography; 008/24-27 (nature of contents) lacks code b.',
      });
    if (hasIndex && fixed.value[31] === '0')
      tell({
        severity: 'advice',
        where: inControl('008', fixed.at, 31, 32),
        message: '504 notes an index; 008/31 (index) is 0.',
      });
  },
};
