import { fieldDefinition, isLocalTag, subfieldIsRepeatable } from '../format';
import { RECORD, inSubfield, placed, wholeField, type Check } from './finding';

const SOURCE = 'MARC 21 Format for Bibliographic Data';

export const titleMissing: Check = {
  rule: 'title-missing',
  title: 'No title statement',
  source: `${SOURCE}, 245 (required)`,
  *run(record) {
    if (!record.fields.some((f) => f.tag === '245'))
      yield { severity: 'error', where: RECORD, message: 'The record has no title (245).' };
  },
};

export const severalMainEntries: Check = {
  rule: 'several-main-entries',
  title: 'More than one main entry',
  source: `${SOURCE}, 1XX Main entries, general information`,
  *run(record) {
    for (const p of placed(record, /^1(00|10|11|30)$/).slice(1))
      yield {
        severity: 'error',
        where: wholeField(p),
        message: `A record has one main entry; ${p.field.tag} is one more.`,
      };
  },
};

export const notRepeatable: Check = {
  rule: 'not-repeatable',
  title: 'Field or subfield repeated that is not repeatable',
  source: `${SOURCE}, repeatability`,
  *run(record) {
    for (const p of placed(record, /./)) {
      const definition = fieldDefinition(p.field.tag);
      if (!definition) continue;
      if (!definition.repeatable && p.occurrence > 0)
        yield {
          severity: 'error',
          where: wholeField(p),
          message: `${p.field.tag} ${definition.name} is not repeatable; this is one more.`,
        };
      const seen = new Set<string>();
      for (const [i, s] of p.field.subfields.entries()) {
        if (seen.has(s.code) && definition.subfields?.[s.code] && !subfieldIsRepeatable(p.field.tag, s.code))
          yield {
            severity: 'error',
            where: inSubfield(p, i),
            message: `Subfield ${s.code} of ${p.field.tag} is not repeatable.`,
          };
        seen.add(s.code);
      }
    }
  },
};

export const notDefined: Check = {
  rule: 'not-defined',
  title: 'Tag or subfield that the format does not define',
  source: `${SOURCE}, content designation`,
  *run(record) {
    for (const p of placed(record, /./)) {
      const { tag } = p.field;
      if (isLocalTag(tag) || tag === '880') continue;
      const definition = fieldDefinition(tag);
      if (!definition) {
        yield { severity: 'warning', where: wholeField(p), message: `MARC 21 defines no field ${tag}.` };
        continue;
      }
      for (const [i, s] of p.field.subfields.entries()) {
        if (definition.subfields?.[s.code] || s.code === '9') continue;
        const was = definition.obsolete?.includes(s.code);
        yield {
          severity: was ? 'advice' : 'warning',
          where: inSubfield(p, i),
          message: was
            ? `Subfield ${s.code} of ${tag} is obsolete.`
            : `Field ${tag} has no subfield ${s.code}.`,
        };
      }
    }
  },
};

export const emptySubfield: Check = {
  rule: 'empty-subfield',
  title: 'Subfield without text',
  source: 'common practice, no source',
  *run(record) {
    for (const p of placed(record, /./))
      for (const [i, s] of p.field.subfields.entries()) {
        if (s.value.trim() !== '') continue;
        const subfields = p.field.subfields.filter((_, k) => k !== i);
        yield {
          severity: 'warning',
          where: inSubfield(p, i),
          message: `Subfield ${s.code} of ${p.field.tag} is empty.`,
          fix: {
            sentence: subfields.length ? `Take subfield ${s.code} away` : `Take field ${p.field.tag} away`,
            safe: true,
            edits: [
              subfields.length
                ? { op: 'replace', at: p.at, field: { ...p.field, subfields } }
                : { op: 'remove', at: p.at },
            ],
          },
        };
      }
  },
};
