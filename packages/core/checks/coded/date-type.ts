import { look, setPositions, type Check } from '../finding';
import { inControl } from '../view';

const isDate = (text: string) => /^[\du]{4}$/.test(text);

export const dateType: Check = {
  rule: 'date-type',
  title: 'Type of date against the dates in 008',
  group: 'Codes against text',
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
      tell(say(`008/06 is ${type}, and there is no date 1.`));
    else if (type === 's' && isDate(second))
      tell({
        ...say(`008/06 s stands for one date; here there are two, ${first} and ${second}.`),
        ...(first === second && {
          fix: look('Leave the second out', setPositions('008', fixed, 11, '    ')),
        }),
      });
    else if (
      'mcdiktqrp'.includes(type) &&
      /^\d{8}$/.test(first + second) &&
      second < first &&
      !'rp'.includes(type)
    )
      tell(say(`008 runs from ${first} to ${second}, backwards.`));
    else if (type === 'r' && /^\d{8}$/.test(first + second) && second > first)
      tell(
        say(
          `A reprint (008/06 r) has the date of the original second; here ${second} is later than ${first}.`,
        ),
      );
    else if (type === 't' && !isDate(second))
      tell(say('008/06 t stands for dates of publication and of copyright; there is no second date.'));
  },
};
