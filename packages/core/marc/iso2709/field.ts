import { SUBFIELD_CHAR } from './delimiters';
import type { Field, Subfield } from '../record';
import type { Repair } from '../repair';

type Note = (code: Repair['code'], message: string) => void;

/** Reads one field from its text (without terminator); what is irregular is mended and told through `note`. */
export function readField(tag: string, text: string, note: Note): Field {
  if (tag.startsWith('00')) {
    if (!text.includes(SUBFIELD_CHAR)) return { tag, value: text };
    note('control-subfields', `Control field ${tag} had subfields; their text was kept.`);
    return {
      tag,
      value: text
        .split(SUBFIELD_CHAR)
        .map((part, i) => (i ? part.slice(1) : part.trim()))
        .join(''),
    };
  }
  const parts = text.split(SUBFIELD_CHAR);
  const head = parts[0]!;
  const subfields = new Array<Subfield>(parts.length - 1);
  for (let i = 1; i < parts.length; i++) {
    const part = parts[i]!;
    subfields[i - 1] = { code: part[0] ?? ' ', value: part.slice(1) };
  }
  if (head.length === 2) {
    if (parts.length === 1) note('no-delimiter', `Field ${tag} had no subfield.`);
    return { tag, ind1: head[0]!, ind2: head[1]!, subfields };
  }
  return irregularField(tag, head, subfields, note);
}

function irregularField(tag: string, head: string, subfields: Subfield[], note: Note): Field {
  if (head.length < 2) {
    note('indicators', `Field ${tag} had ${head.length} of 2 indicators; blanks were added.`);
    return { tag, ind1: head[0] ?? ' ', ind2: ' ', subfields };
  }
  const hasIndicators = /^[0-9a-z |][0-9a-z |]/.test(head) && !/^[a-z]{2}/.test(head);
  const text = (hasIndicators ? head.slice(2) : head).replace(/^ +/, '');
  const ind1 = hasIndicators ? head[0]! : ' ';
  const ind2 = hasIndicators ? head[1]! : ' ';
  if (text === '' || /^[0-9 ]{1,2}$/.test(text)) {
    note('indicators', `Field ${tag} had ${head.length} indicators; the first two were kept.`);
    return { tag, ind1, ind2, subfields };
  }
  note('no-delimiter', `Field ${tag} had text before its first subfield; it was kept as subfield a.`);
  return { tag, ind1, ind2, subfields: [{ code: 'a', value: text }, ...subfields] };
}
