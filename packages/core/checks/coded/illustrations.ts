import { look, setPositions, type Check } from '../finding';
import { inControl, textsIn } from '../view';
import { bookFixed } from './book-008';

export const illustrations: Check = {
  rule: 'illustrations',
  title: 'Illustrations in 008 and 300 differ',
  group: 'Coded fields',
  source: 'MARC 21, 008/18-21 of books and 300 $b',
  needs: ['300'],
  run(view, tell) {
    const fixed = bookFixed(view);
    if (!fixed) return;
    const coded = fixed.value.slice(18, 22);
    const written = textsIn(view.tagged('300'), 'b').join(' ');
    const says = /\bill(us|\.|\b)/i.test(written);
    const maps = /\bmaps?\b/i.test(written);
    const where = inControl('008', fixed.at, 18, 22);
    if (coded === '    ' && (says || maps))
      tell({
        severity: 'advice',
        where,
        message: `300 $b has “${written}”; 008/18-21 (illustrations) is blank.`,
        fix: look(
          `Put ${says ? 'a' : ''}${maps ? 'b' : ''} into 008`,
          setPositions('008', fixed, 18, `${says ? 'a' : ''}${maps ? 'b' : ''}`.padEnd(4)),
        ),
      });
    else if (coded.includes('a') && !says && view.tagged('300').length > 0 && written === '')
      tell({ severity: 'advice', where, message: '008/18-21 (illustrations) is coded; 300 has no $b.' });
  },
};
