import { type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

/** One to three letters (no I, O, W, X or Y first), a number, perhaps decimals and cutters, dates and words. */
const LC = /^[A-HJ-NP-VZ][A-Z]{0,2} ?\d{1,4}(\.\d+)?(\s*\.? ?[A-Z]\d+[a-z]?)*(\s.*)?$/;

/** The label and number by which the Library of Congress shelves sound recordings, such as “Reed Records RR 1012-2”. */
const LABEL = /^\p{Lu}\p{L}{3,}(?:[ .&'-]+\p{L}+)*\.? [A-Z ]*\d[\dA-Z/-]*$/u;

export const lcClassForm: Check = {
  rule: 'lc-class-form',
  title: 'Form of the LC class number',
  group: 'Classification and holdings',
  source: 'MARC 21, 050 and 090; LC Classification and Shelflisting Manual, G 55',
  needs: ['050'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('050'))
      for (const { value, i } of subfieldsOf(p, 'a')) {
        const text = value.trim();
        if (
          LC.test(text) ||
          LABEL.test(text) ||
          /^(?:LAW|MLC|IN PROCESS|UNCL|NOT IN LC|Microfi|WMLC|Folio|CURRENT ISSUES|ISSN|[A-Z]{1,3}$|PZ7\+|PAR|\[)/i.test(
            text,
          )
        )
          continue;
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `“${value}” is not an LC class number.`,
        });
      }
  },
};
