import { codeStanding } from '../../format';
import { change, look, type Check } from '../finding';
import { SUBJECT_TAGS, inSubfield, wholeField } from '../view';

export const subjectSource: Check = {
  rule: 'subject-source',
  title: 'Source of subject heading missing or unknown',
  group: 'Subjects',
  source: 'MARC 21, 6XX second indicator 7 and $2; Subject and Genre/Form Source Codes',
  needs: SUBJECT_TAGS,
  each: true,
  run({ subjects }, tell) {
    for (const p of subjects) {
      const i = p.field.subfields.findIndex((s) => s.code === '2');
      const code = p.field.subfields[i]?.value.trim();
      const { ind2 } = p.field;
      if (ind2 === '7' && code === undefined)
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `Second indicator 7 needs the source in $2.`,
        });
      else if (code !== undefined && ind2 !== '7' && /^[0-68]$/.test(ind2))
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `With $2 ${code} the second indicator is 7, not ${ind2}.`,
          fix: look('Set the second indicator to 7', change(p, { ind2: '7' })),
        });
      else if (code !== undefined && !known(code))
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `“${code}” is not a MARC source code for subjects or genres.`,
        });
    }
  },
};

const known = (code: string) =>
  codeStanding('subjectSources', code) !== 'unknown' ||
  codeStanding('genreSources', code) !== 'unknown' ||
  code === 'local';
