import { change, look, safe, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

/** Series and linking entries, with the ISSN of another resource in $x. */
const WITH_ISSN = [
  ...['410', '440', '490', '800', '810', '820', '830'],
  ...Array.from({ length: 30 }, (_, i) => String(760 + i)),
];

export const issnForm: Check = {
  rule: 'issn-invalid',
  title: 'Invalid ISSN',
  group: 'Numbers',
  source: 'ISO 3297, annex A (check digit); MARC 21, 022',
  needs: ['022', ...WITH_ISSN],
  each: true,
  run({ data }, tell) {
    for (const p of data) {
      const codes = p.field.tag === '022' ? 'al' : WITH_ISSN.includes(p.field.tag) ? 'x' : null;
      if (codes === null) continue;
      for (const { code, value, i } of subfieldsOf(p, codes)) {
        const found = /^(?:ISSN[ :]*)?(\d{4})[-–— ]?(\d{3}[\dXx])[ ;.,]*$/.exec(value.trim());
        const digits = found && (found[1]! + found[2]!).toUpperCase();
        if (!digits || issnCheckDigit(digits) !== digits[7]) {
          const wrong = p.field.tag === '022' && code === 'a';
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: digits
              ? `The check digit of ISSN ${value.trim()} should be ${issnCheckDigit(digits)}.`
              : `“${value}” is not an ISSN (four digits, hyphen, four characters).`,
            ...(wrong && {
              fix: look(
                'Move it to $y (incorrect ISSN)',
                change(p, {
                  subfields: p.field.subfields.map((s, k) => (k === i ? { ...s, code: 'y' } : s)),
                }),
              ),
            }),
          });
          continue;
        }
        const right = `${digits.slice(0, 4)}-${digits.slice(4)}`;
        if (p.field.tag === '022' && value !== right)
          tell({
            severity: 'advice',
            where: inSubfield(p, i),
            message: `An ISSN is written ${right}.`,
            fix: safe(`Write ${right}`, setText(p, i, right)),
          });
      }
    }
  },
};

/** The eighth character that the first seven digits ask for. */
export function issnCheckDigit(digits: string): string {
  let sum = 0;
  for (let i = 0; i < 7; i++) sum += Number(digits[i]) * (8 - i);
  const rest = (11 - (sum % 11)) % 11;
  return rest === 10 ? 'X' : String(rest);
}
