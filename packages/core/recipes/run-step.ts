import { findAll, isAddress, parseAddress } from '../address';
import { cutDewey, offerCallNumbers } from '../callnumbers';
import { asHouseHas, fixAll, subjectKey, withoutParts } from '../checks';
import type { HouseRules } from '../house';
import { controlValue, isData, withField, type Field, type MarcRecord } from '../marc';
import { fold } from '../text';
import { inCase } from './letter-case';
import { matches, replaced } from './expression';
import { chosen, mapData, mapFields, mapTexts, matchesTags, textOf, without } from './select';
import type { StepBody } from './step';

type Run<K extends StepBody['step']> = (
  record: MarcRecord,
  step: Extract<StepBody, { step: K }>,
  house: HouseRules,
) => MarcRecord;

const SUBDIVIDED = /^6(00|10|11|30|47|48|50|51|55)$/;
const languageOf = (record: MarcRecord) => controlValue(record, '008')?.slice(35, 38) ?? '';

function retagged(f: Field, tag: string): Field {
  return { ...f, tag };
}

/** What each kind of step does. A step that has nothing to do gives the same record. */
const RUNS: { [K in StepBody['step']]: Run<K> } = {
  'add-field': (record, { field, ifAbsent }) =>
    ifAbsent && record.fields.some((f) => f.tag === field.tag) ? record : withField(record, field),

  'delete-field': (record, { tags, which, match }) => {
    const found = record.fields.flatMap((f, i) =>
      matchesTags(f.tag, tags) && matches(textOf(f), match) ? [i] : [],
    );
    const goes = chosen(found, which);
    return goes.size ? { ...record, fields: record.fields.filter((_, i) => !goes.has(i)) } : record;
  },

  'copy-field': (record, { tags, to }) =>
    record.fields
      .filter((f) => matchesTags(f.tag, tags) && isData(f) === !to.startsWith('00'))
      .reduce<MarcRecord>((r, f) => withField(r, retagged(f, to)), record),

  'move-field': (record, { tags, to }) => {
    const moving = record.fields.filter(
      (f) => matchesTags(f.tag, tags) && f.tag !== to && isData(f) === !to.startsWith('00'),
    );
    if (moving.length === 0) return record;
    const rest: MarcRecord = { ...record, fields: record.fields.filter((f) => !moving.includes(f)) };
    return moving.reduce<MarcRecord>((r, f) => withField(r, retagged(f, to)), rest);
  },

  'set-subfield': (record, { tags, code, value, ifAbsent }) =>
    mapData(record, tags, (f) => {
      if (!f.subfields.some((s) => s.code === code))
        return { ...f, subfields: [...f.subfields, { code, value }] };
      return ifAbsent ? f : mapTexts(f, code, () => value);
    }),

  'delete-subfield': (record, { tags, code, which, match }) =>
    mapData(record, tags, (f) => {
      const found = f.subfields.flatMap((s, i) => (s.code === code && matches(s.value, match) ? [i] : []));
      const goes = chosen(found, which);
      return without(f, (_, i) => goes.has(i));
    }),

  'copy-subfield': (record, { tags, code, toCode }) =>
    mapData(record, tags, (f) => {
      const copies = f.subfields.filter((s) => s.code === code).map((s) => ({ ...s, code: toCode }));
      return copies.length ? { ...f, subfields: [...f.subfields, ...copies] } : f;
    }),

  'move-subfield': (record, { tags, code, toCode }) =>
    mapData(record, tags, (f) =>
      code !== toCode && f.subfields.some((s) => s.code === code)
        ? { ...f, subfields: f.subfields.map((s) => (s.code === code ? { ...s, code: toCode } : s)) }
        : f,
    ),

  'set-indicator': (record, { tags, which, value, from }) =>
    mapData(record, tags, (f) => {
      const now = which === 1 ? f.ind1 : f.ind2;
      if (now === value || (from !== undefined && now !== from)) return f;
      return which === 1 ? { ...f, ind1: value } : { ...f, ind2: value };
    }),

  'replace-text': (record, { tags, codes, match, by }) =>
    mapData(record, tags, (f) => mapTexts(f, codes, (text) => replaced(text, match, by))),

  'change-case': (record, { tags, codes, to }) => {
    const language = languageOf(record);
    return mapData(record, tags, (f) => mapTexts(f, codes, (text) => inCase(text, to, language)));
  },

  'end-mark': (record, { tags, mark }) =>
    mapData(record, tags, (f) => {
      let last = -1;
      f.subfields.forEach((s, i) => {
        if (/[a-z]/.test(s.code)) last = i;
      });
      const value = f.subfields[last]?.value;
      if (value === undefined) return f;
      const bare = value.replace(/(?:\s*[.,;:/=])+\s*$/, '').trimEnd();
      const next = bare === '' ? value : /[?!)\]”"»-]$/.test(bare) && mark === '.' ? bare : bare + mark;
      if (next === value) return f;
      return { ...f, subfields: f.subfields.map((s, i) => (i === last ? { ...s, value: next } : s)) };
    }),

  'capital-after-article': (record, { tag }, { wordAfterArticle }) => {
    const language = languageOf(record);
    return mapData(record, tag, (f) =>
      mapTexts(
        f,
        'a',
        (text) => asHouseHas(text, language, record, wordAfterArticle, 'a common word') ?? text,
      ),
    );
  },

  'drop-subdivision': (record, { text }) =>
    mapFields(record, (f) => {
      if (!isData(f) || !SUBDIVIDED.test(f.tag)) return f;
      const left = withoutParts(f, (s) => 'vxyz'.includes(s.code) && fold(s.value) === fold(text));
      return left.subfields.some((s) => s.code >= 'a') ? left : null;
    }),

  'rename-subdivision': (record, { text, by }) =>
    mapFields(record, (f) =>
      isData(f) && SUBDIVIDED.test(f.tag)
        ? mapTexts(f, 'vxyz', (value) =>
            fold(value) === fold(text) ? by + (/\.$/.test(value) && !/\.$/.test(by) ? '.' : '') : value,
          )
        : f,
    ),

  'drop-duplicate-subjects': (record) => {
    const seen = new Set<string>();
    return mapFields(record, (f) => {
      if (!isData(f) || !/^6[0-5]/.test(f.tag)) return f;
      const key = subjectKey(f);
      if (seen.has(key)) return null;
      seen.add(key);
      return f;
    });
  },

  'drop-incomplete-headings': (record) =>
    mapFields(record, (f) => {
      if (!isData(f) || !SUBDIVIDED.test(f.tag)) return f;
      return f.subfields.some((s) => 'at'.includes(s.code) && /[\p{L}\p{N}]/u.test(s.value)) ? f : null;
    }),

  'sort-fields': (record) => {
    const sorted = record.fields
      .map((f, i) => ({ f, i }))
      .sort((a, b) => (a.f.tag < b.f.tag ? -1 : a.f.tag > b.f.tag ? 1 : a.i - b.i))
      .map(({ f }) => f);
    return sorted.every((f, i) => f === record.fields[i]) ? record : { ...record, fields: sorted };
  },

  'set-position': (record, { tag, from, text }) => {
    const set = (value: string) => value.slice(0, from).padEnd(from) + text + value.slice(from + text.length);
    if (tag === 'LDR') {
      const leader = set(record.leader).slice(0, 24);
      return leader === record.leader ? record : { ...record, leader };
    }
    return mapFields(record, (f) => {
      if (f.tag !== tag || !('value' in f)) return f;
      const value = set(f.value);
      return value === f.value ? f : { ...f, value };
    });
  },

  'map-codes': (record, { tags, code, table }) =>
    mapData(record, tags, (f) =>
      mapTexts(f, code, (text) => (Object.hasOwn(table, text.trim()) ? table[text.trim()]! : text)),
    ),

  'cut-class': (record, { tag }, house) =>
    mapData(record, tag, (f) => mapTexts(f, 'a', (text) => cutDewey(text, house.classDecimals) ?? text)),

  'call-number': (record, { scheme }, house) => {
    const offer = offerCallNumbers(record, house).find((o) => o.scheme === scheme);
    if (!offer) return record;
    const first = { lc: '0', dewey: '1', nlm: '2' }[scheme];
    const parts = [
      { code: 'h', value: offer.class },
      ...(offer.item ? [{ code: 'i', value: offer.item }] : []),
    ];
    return mapData(record, '852', (f) =>
      f.subfields.some((s) => s.code === 'h')
        ? f
        : { ...f, ind1: first, subfields: withCallNumber(f.subfields, parts) },
    );
  },

  'build-field': (record, { tag, indicators, parts }) => {
    const subfields = parts.flatMap(({ code, template }) => {
      const value = filled(record, template);
      return value === null ? [] : [{ code, value }];
    });
    if (subfields.length === 0) return record;
    const field = { tag, ind1: indicators[0] ?? ' ', ind2: indicators[1] ?? ' ', subfields };
    const same = (f: Field) => JSON.stringify(f) === JSON.stringify(field);
    return record.fields.some(same) ? record : withField(record, field);
  },

  'apply-fixes': (record, { rule }, house) => fixAll(record, house, new Set([rule])).record,
};

/** Class and item stand behind the location codes and before the rest of 852. */
function withCallNumber<S extends { readonly code: string }>(
  subfields: readonly S[],
  parts: readonly S[],
): S[] {
  let at = 0;
  subfields.forEach((s, i) => {
    if ('3abc'.includes(s.code)) at = i + 1;
  });
  return [...subfields.slice(0, at), ...parts, ...subfields.slice(at)];
}

/** A template with its addresses filled in by what they find first; null when one finds nothing. */
function filled(record: MarcRecord, template: string): string | null {
  let missing = false;
  const text = template.replace(/\{([^{}]+)\}/g, (_, written: string) => {
    const address = parseAddress(written);
    const found = isAddress(address) ? findAll(record, address)[0]?.text : undefined;
    if (found === undefined || found === '') missing = true;
    return found?.replace(/\s*[/:;,=]$/, '') ?? '';
  });
  return missing ? null : text;
}

/** A record after one step; the same value when the step did nothing. */
export function runStepBody(record: MarcRecord, step: StepBody, house: HouseRules): MarcRecord {
  return (RUNS[step.step] as Run<StepBody['step']>)(record, step, house);
}
