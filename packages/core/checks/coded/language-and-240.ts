import { codeName, codeNamed } from '../../format';
import { type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

export const languageAgainst240: Check = {
  rule: 'language-and-240',
  title: 'Language of the uniform title and language codes differ',
  group: 'Coded fields',
  source: 'MARC 21, 130 and 240 $l, 008/35-37, 041 $a',
  needs: ['130', '240'],
  run(view, tell) {
    for (const p of [...view.tagged('240'), ...view.tagged('130')])
      for (const { value, i } of subfieldsOf(p, 'l')) {
        const names = value.replace(/[.\s]+$/, '').split(/ (?:&|and) |, /);
        const codes = names.map((n) => codeNamed('languages', n));
        const coded = [
          view.language,
          ...view.tagged('041').flatMap((f) => subfieldsOf(f, 'ad').map((s) => s.value)),
        ];
        const missing = codes.find((c) => c !== undefined && !coded.some((x) => x.includes(c)));
        if (
          missing &&
          codes.every((c) => c !== undefined) &&
          coded.some((x) => x.trim() !== '' && x !== 'mul')
        )
          tell({
            severity: 'warning',
            where: inSubfield(p, i),
            message: `The uniform title says ${codeName('languages', missing)}; 008 and 041 say ${coded.filter(Boolean).join(', ')}.`,
          });
      }
  },
};
