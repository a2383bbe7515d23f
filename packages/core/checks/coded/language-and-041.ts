import { codeName } from '../../format';
import { look, setPositions, type Check } from '../finding';
import { inControl, subfieldsOf } from '../view';

export const languageAgainst041: Check = {
  rule: 'language-and-041',
  title: 'Language in 008 and 041 differ',
  group: 'Coded fields',
  source: 'MARC 21, 041 $a (the first code is that of 008/35-37)',
  needs: ['041'],
  run(view, tell) {
    const fixed = view.control('008');
    const p = view.tagged('041')[0];
    if (!fixed || !p || p.field.ind2 === '7' || fixed.value.length < 38) return;
    const first = subfieldsOf(p, 'ad')[0];
    const code = first?.value.slice(0, 3);
    const { language } = view;
    if (!code || !/^[a-z]{3}$/.test(code) || !/^[a-z]{3}$/.test(language) || code === language) return;
    if (language === 'mul' || language === 'zxx') return;
    tell({
      severity: 'warning',
      where: inControl('008', fixed.at, 35, 38),
      message: `Language is ${name(language)} in 008/35-37 and ${name(code)} in the first 041 $a.`,
      fix: look(`Put ${code} into 008`, setPositions('008', fixed, 35, code)),
    });
  },
};

const name = (code: string) => `${codeName('languages', code) ?? 'an unknown language'} (${code})`;
