import { decodedOnce } from '../text';
import { inSubfield, placed, type Check } from './finding';

export const twiceEncoded: Check = {
  rule: 'twice-encoded',
  title: 'Text encoded twice',
  source: 'The Unicode Standard, section 3.9 (UTF-8); common practice',
  *run(record) {
    for (const p of placed(record, /./))
      for (const [i, s] of p.field.subfields.entries()) {
        const meant = decodedOnce(s.value);
        if (meant === null) continue;
        yield {
          severity: 'error',
          where: inSubfield(p, i),
          message: `The text was encoded twice: “${excerpt(s.value)}” reads “${excerpt(meant)}”.`,
          fix: {
            sentence: `Read it as “${excerpt(meant)}”`,
            safe: true,
            edits: [{ op: 'text', at: p.at, subfield: i, value: meant }],
          },
        };
      }
  },
};

export const replacementCharacter: Check = {
  rule: 'replacement-character',
  title: 'Character that was lost',
  source: 'The Unicode Standard, U+FFFD',
  *run(record) {
    for (const p of placed(record, /./))
      for (const [i, s] of p.field.subfields.entries()) {
        const at = s.value.indexOf('\ufffd');
        if (at >= 0)
          yield {
            severity: 'error',
            where: inSubfield(p, i, at, at + 1),
            message: `A character was lost in ${p.field.tag} $${s.code}: “${excerpt(s.value.slice(Math.max(0, at - 12)))}”.`,
          };
      }
  },
};

const excerpt = (text: string) => (text.length > 40 ? `${text.slice(0, 39)}…` : text);
