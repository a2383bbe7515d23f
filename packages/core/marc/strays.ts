import { isControl, type Field, type MarcRecord } from './record';
import type { Repair } from './repair';

const DELIMITER = /[\u001d-\u001f]/;
const all = new RegExp(DELIMITER, 'g');

/**
 * A record without what no MARC field can hold, told in `repairs`: delimiters of ISO 2709 in a text become blanks, a tag
 * has three characters, an indicator and a subfield code one. The same record when there is nothing to do.
 */
export function withoutDelimiters(record: MarcRecord, offset: number, repairs: Repair[]): MarcRecord {
  let changed = false;
  const tell = (code: Repair['code'], message: string) => {
    changed = true;
    repairs.push({ code, offset, message, repaired: true });
  };
  const text = (value: string, tag: string) => {
    if (!DELIMITER.test(value)) return value;
    tell('stray-delimiter', `Field ${tag} had ISO 2709 delimiters in its text; they became blanks.`);
    return value.replace(all, ' ');
  };
  const fields = record.fields.map((f): Field => {
    const tag = tagOf(f.tag, tell);
    if (isControl(f)) return { tag, value: text(f.value, tag) };
    const subfields = f.subfields.map((s) => {
      const value = text(s.value, tag);
      if (s.code.length === 1 || s.code.codePointAt(0)! > 0xffff)
        return value === s.value ? s : { ...s, value };
      tell('tag', `Field ${tag} had the subfield code “${s.code}”; its first character was kept.`);
      return { code: s.code[0] ?? ' ', value };
    });
    return { tag, ind1: f.ind1[0] ?? ' ', ind2: f.ind2[0] ?? ' ', subfields };
  });
  return changed ? { ...record, fields } : record;
}

function tagOf(tag: string, tell: (code: Repair['code'], message: string) => void): string {
  if (tag.length === 3) return tag;
  const mended = tag.padStart(3, '0').slice(0, 3);
  tell('tag', `“${tag}” is not a tag of three characters; it was kept as ${mended}.`);
  return mended;
}
