import { look, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

const NAMES = ['100', '400', '500', '600', '700', '800'];
/** Years with approximately, active, question marks, centuries, B.C. and months (RDA 9.3 and 9.19.1.2, as MARC $d). */
const YEAR = String.raw`(?:(?:approximately |approx\. |ca\. ?|active |-)?\d{1,4}\??(?: \p{L}+)?(?: \d{1,2})?(?: B\.C\.| A\.D\.)?(?: or \d{1,4})?)`;
const DATES = new RegExp(
  String.raw`^(?:(?:active |born |died |fl\. |b\. |d\. )?${YEAR}(?:-(?:${YEAR})?)?|-${YEAR}|(?:active )?(?:approximately )?\d{1,2}(?:st|nd|rd|th)(?:[/-]\d{1,2}(?:st|nd|rd|th))? (?:century|cent\.)(?:[-/]\d{1,2}(?:st|nd|rd|th) (?:century|cent\.))?(?: B\.C\.)?)[.,]*$`,
  'u',
);

export const nameDates: Check = {
  rule: 'name-dates',
  title: 'Form of dates in a name heading',
  group: 'Names',
  source: 'MARC 21, X00 $d; form of the NACO authority file',
  needs: [...NAMES, '880'],
  formats: ['bibliographic', 'authority'],
  each: true,
  run(view, tell) {
    for (const p of view.ruled(NAMES)) {
      for (const { value, i } of subfieldsOf(p, 'd')) {
        const plain = /^(\d{4})-(\d{4})?[.,]*$/.exec(value);
        if (plain && (plain[2] === undefined || plain[2] >= plain[1]!)) continue;
        const where = inSubfield(p, i);
        const closed = value
          .replace(/(\d) ?[-–—] ?(?=\d)/g, '$1-')
          .replace(/(\d) ?[–—]/g, '$1-')
          .replace(/(\d) -(?=[.,]*$)/g, '$1-');
        const years = /^(\d{4})-(\d{4})/.exec(closed);
        if (years && years[2]! < years[1]!)
          tell({
            severity: 'warning',
            where,
            message: `The second date is earlier than the first: ${value}.`,
          });
        else if (closed !== value)
          tell({
            severity: 'advice',
            where,
            message: `Dates of a name have a hyphen and no spaces: ${closed}.`,
            fix: look(`Write ${closed}`, setText(p, i, closed)),
          });
        else if (!DATES.test(value.trim()))
          tell({
            severity: 'advice',
            where,
            message: `Unusual form of dates: “${value}”.`,
          });
      }
    }
  },
};
