import { codeName, codeNamed, codeStanding } from '../../format';
import { look, setText, type Check, type Tell } from '../finding';
import { NAME_TAGS, inSubfield, subfieldsOf, type Placed } from '../view';

const NAMES = /^[17](00|10)$/;
const MEETINGS = /^[17]11$/;

export const relator: Check = {
  rule: 'relator',
  title: 'Unknown relator code or term',
  group: 'Names',
  source: 'MARC Code List for Relators; MARC 21, X00 $e and $4',
  needs: NAME_TAGS,
  each: true,
  run({ names }, tell) {
    for (const p of names) {
      const terms = NAMES.test(p.field.tag) ? 'e' : MEETINGS.test(p.field.tag) ? 'j' : null;
      if (!terms) continue;
      for (const { value, i } of subfieldsOf(p, '4')) {
        if (/^https?:/.test(value)) continue;
        const standing = codeStanding('relators', value.trim());
        if (standing !== 'current')
          tell({
            severity: standing === 'obsolete' ? 'advice' : 'warning',
            where: inSubfield(p, i),
            message: `“${value}” is ${standing === 'obsolete' ? 'an obsolete' : 'no'} relator code of the MARC list.`,
          });
      }
      termFindings(p, terms, tell);
    }
  },
};

function termFindings(p: Placed, code: string, tell: Tell) {
  for (const { value, i } of subfieldsOf(p, code)) {
    const term = value.replace(/[.,\s]+$/, '');
    const capital = /^\p{Lu}\p{Ll}/u.test(term) && codeNamed('relators', term);
    if (capital)
      tell({
        severity: 'advice' as const,
        where: inSubfield(p, i),
        message: `A relator term begins with a small letter: ${term.toLowerCase()}.`,
        fix: look('Write it small', setText(p, i, value[0]!.toLowerCase() + value.slice(1))),
      });
    else if (
      /^[a-z]{3}$/.test(term) &&
      codeStanding('relators', term) === 'current' &&
      !codeNamed('relators', term)
    )
      tell({
        severity: 'advice' as const,
        where: inSubfield(p, i),
        message: `“${term}” is a relator code (${codeName('relators', term)}); codes belong in $4.`,
      });
  }
}
