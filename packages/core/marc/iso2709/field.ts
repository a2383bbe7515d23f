import { FIELD_END_CHAR, RECORD_END_CHAR, SUBFIELD_CHAR } from './delimiters';
import type { Field, Subfield } from '../record';
import type { Repair } from '../repair';
import { ReadField } from './read-field';

export type Note = (code: Repair['code'], message: string) => void;

/** Reads one field from its text (without terminator); what is irregular is mended and told through `note`. */
export function readField(tag: string, text: string, note: Note): Field {
  if (!isTag(tag)) note('tag', `“${tag}” is not a tag of three letters or digits; it was kept.`);
  if (tag.startsWith('00')) return controlField(tag, text, note);
  let at = text.indexOf(SUBFIELD_CHAR);
  const head = at < 0 ? text : text.slice(0, at);
  const subfields: Subfield[] = [];
  while (at >= 0) {
    const next = text.indexOf(SUBFIELD_CHAR, at + 1);
    const end = next < 0 ? text.length : next;
    if (end === at + 1)
      note('empty-delimiter', `Field ${tag} had a subfield delimiter with nothing behind it.`);
    else subfields.push(subfieldOf(text, at + 1, end));
    at = next;
  }
  if (head.length === 2) {
    if (subfields.length === 0) note('no-delimiter', `Field ${tag} had no subfield.`);
    return new ReadField(tag, head[0]!, head[1]!, subfields);
  }
  return irregularField(tag, withoutLineEnds(head), subfields, note);
}

/** The code is one character, also where that takes two units of UTF-16. */
function subfieldOf(text: string, from: number, to: number): Subfield {
  const first = text.charCodeAt(from);
  const code = first >= 0xd800 && first <= 0xdbff && to - from > 1 ? from + 2 : from + 1;
  return { code: text.slice(from, code), value: text.slice(code, to) };
}

const isTag = (tag: string) => {
  for (let i = 0; i < 3; i++) {
    const c = tag.charCodeAt(i);
    if (!((c >= 48 && c <= 57) || (c >= 65 && c <= 90) || (c >= 97 && c <= 122))) return false;
  }
  return tag.length === 3;
};

function controlField(tag: string, text: string, note: Note): Field {
  if (!text.includes(SUBFIELD_CHAR)) return { tag, value: text };
  note('control-subfields', `Control field ${tag} had subfields; their text was kept.`);
  const [head, ...parts] = text.split(SUBFIELD_CHAR) as [string, ...string[]];
  const indicators = head.trim().length <= 2 && !/\S{2}/.test(head);
  return { tag, value: (indicators ? '' : head) + parts.map((part) => part.slice(1)).join('') };
}

/** A line that was broken between the indicators. */
const withoutLineEnds = (head: string) => {
  const whole = head.replace(/[\r\n]/g, '');
  return whole.length === 2 ? `${whole}${' '.repeat(head.length - 2)}` : head;
};

function irregularField(tag: string, head: string, subfields: Subfield[], note: Note): Field {
  if (head.length < 2) {
    note('indicators', `Field ${tag} had ${head.length} of 2 indicators; blanks were added.`);
    return new ReadField(tag, head[0] ?? ' ', ' ', subfields);
  }
  const hasIndicators = /^[0-9 |][0-9 |]/.test(head);
  const text = (hasIndicators ? head.slice(2) : head).replace(/^ +/, '');
  const ind1 = hasIndicators ? head[0]! : ' ';
  const ind2 = hasIndicators ? head[1]! : ' ';
  if (text === '' || /^[0-9 ]{1,2}$/.test(text)) {
    note('indicators', `Field ${tag} had ${head.length} indicators; the first two were kept.`);
    return new ReadField(tag, ind1, ind2, subfields);
  }
  note('no-delimiter', `Field ${tag} had text before its first subfield; it was kept as subfield a.`);
  return new ReadField(tag, ind1, ind2, [{ code: 'a', value: text }, ...subfields]);
}

/** Text without the terminators and NULs that do not belong inside a field. */
export function withoutStrays(tag: string, text: string, note: Note): string {
  let clean = text;
  if (clean.includes('\0')) {
    note('nul-bytes', `Field ${tag} had NUL bytes; they were left out.`);
    clean = clean.replaceAll('\0', '');
  }
  if (clean.includes(FIELD_END_CHAR)) {
    note('field-terminator', `Field ${tag} had a field terminator inside; it was left out.`);
    clean = clean.replaceAll(FIELD_END_CHAR, '');
  }
  if (clean.includes(RECORD_END_CHAR)) {
    note('record-terminator', `Field ${tag} had a record terminator inside; it was left out.`);
    clean = clean.replaceAll(RECORD_END_CHAR, '');
  }
  return clean;
}
