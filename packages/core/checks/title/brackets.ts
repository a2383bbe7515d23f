import { excerpt, type Check } from '../finding';
import { wholeField, type Placed } from '../view';

const HAS = /[()[\]]/;
/** A first date in square brackets of what is still published: `[1981-`. */
const OPEN_DATE = /\[[^[\]]*\d{2,4}\??- *$/;
const PAIRS: readonly [string, string][] = [
  ['(', ')'],
  ['[', ']'],
];
const CHECKED = new Set([
  '020',
  '245',
  '246',
  '250',
  '260',
  '264',
  '300',
  '490',
  '100',
  '110',
  '111',
  '600',
  '610',
  '611',
  '630',
  '650',
  '651',
  '700',
  '710',
  '711',
  '730',
  '830',
]);

export const brackets: Check = {
  rule: 'brackets',
  title: 'Unmatched bracket',
  group: 'Title',
  source: 'ISBD, general punctuation (brackets)',
  needs: [...CHECKED],
  each: true,
  run({ data, text }, tell) {
    if (!HAS.test(text)) return;
    for (const p of data) {
      if (!CHECKED.has(p.field.tag)) continue;
      if (!hasBracket(p)) continue;
      const text = p.field.subfields
        .filter((s) => s.code > '9')
        .map((s) => s.value)
        .join(' ');
      for (const [open, close] of PAIRS) {
        const [left, right] = [count(text, open), count(text, close)];
        if (open === '[' && left === right + 1 && OPEN_DATE.test(text)) continue;
        if (left !== right)
          tell({
            severity: 'warning',
            where: wholeField(p),
            message: `${p.field.tag} has ${left} “${open}” and ${right} “${close}”: “${excerpt(text, 60)}”.`,
          });
      }
    }
  },
};

/** Looked for by hand: this runs over most texts of every record. */
function hasBracket({ subfields }: Placed): boolean {
  for (const { value } of subfields)
    if (value.includes('(') || value.includes('[') || value.includes(')') || value.includes(']')) return true;
  return false;
}

const count = (text: string, of: string) => text.split(of).length - 1;
