import { runningText, type DataField } from '../marc';
import { fold } from '../text';
import { placed, wholeField, type Check } from './finding';

/** What makes two subject fields the same heading: tag, subject system and text but for case and punctuation. */
export const subjectKey = (f: DataField): string =>
  `${f.tag} ${f.ind2} ${f.subfields.find((s) => s.code === '2')?.value ?? ''} ${f.subfields
    .filter((s) => /[a-z]/.test(s.code))
    .map((s) => `${s.code}${fold(s.value)}`)
    .join('|')}`;

export const duplicateSubject: Check = {
  rule: 'duplicate-subject',
  title: 'Subject heading given twice',
  source: 'common practice, no source',
  *run(record) {
    const seen = new Map<string, string>();
    for (const p of placed(record, /^6[0-5]/)) {
      const key = subjectKey(p.field);
      const before = seen.get(key);
      if (before !== undefined)
        yield {
          severity: 'warning',
          where: wholeField(p),
          message: `“${runningText(p.field)}” is there already, as “${before}”.`,
          fix: { sentence: 'Take this one away', safe: true, edits: [{ op: 'remove', at: p.at }] },
        };
      else seen.set(key, runningText(p.field));
    }
  },
};

export const droppedSubdivision: Check = {
  rule: 'dropped-subdivision',
  title: 'Subdivision that this library drops',
  source: 'house rules',
  *run(record, house) {
    const dropped = new Set(house.droppedSubdivisions.map(fold));
    for (const p of placed(record, /^6[0-5]/))
      for (const [i, s] of p.field.subfields.entries()) {
        if (!'xvyz'.includes(s.code) || !dropped.has(fold(s.value))) continue;
        const subfields = p.field.subfields.filter((_, k) => k !== i);
        yield {
          severity: 'advice',
          where: { ...wholeField(p), subfield: i, code: s.code },
          message: `The subdivision “${s.value}” is dropped in this library.`,
          fix: {
            sentence: `Drop “${s.value}”`,
            safe: true,
            edits: [{ op: 'replace', at: p.at, field: { ...p.field, subfields } }],
          },
        };
      }
  },
};
