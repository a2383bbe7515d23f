import { look, setPositions, type Check } from '../finding';
import { inControl } from '../view';

const isDate = (text: string) => /^[\du]{4}$/.test(text);

export const dateType: Check = {
  rule: 'date-type',
  title: 'Type of date and dates in 008 differ',
  group: 'Coded fields',
  source: 'MARC 21, 008/06 and 008/07-14',
  run(view, tell) {
    const fixed = view.control('008');
    if (!fixed || fixed.value.length < 15) return;
    const { value, at } = fixed;
    const [type, first, second] = [value[6]!, value.slice(7, 11), value.slice(11, 15)];
    const say = (message: string) => ({
      severity: 'warning' as const,
      where: inControl('008', at, 6, 15),
      message,
    });
    if ((type === 's' || type === 'c' || type === 'd') && first.trim() === '')
      tell(say(`Type of date (008/06) is ${type}, but date 1 is empty.`));
    else if (type === 's' && isDate(second))
      tell({
        ...say(`Type of date s (single date) allows one date; 008 has ${first} and ${second}.`),
        ...(first === second && {
          fix: look('Delete date 2', setPositions('008', fixed, 11, '    ')),
        }),
      });
    else if (
      'mcdiktqrp'.includes(type) &&
      /^\d{8}$/.test(first + second) &&
      second < first &&
      !'rp'.includes(type)
    )
      tell(say(`Date 1 (${first}) is later than date 2 (${second}).`));
    else if (type === 'r' && /^\d{8}$/.test(first + second) && second > first)
      tell(
        say(`Type of date r (reprint) has the original date as date 2; ${second} is later than ${first}.`),
      );
    else if (type === 't' && !isDate(second))
      tell(say('Type of date t (publication and copyright date) needs a date 2.'));
  },
};
