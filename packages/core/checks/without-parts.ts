import type { DataField, Subfield } from '../marc';

const isText = ({ code }: Subfield) => code >= 'a' && code <= 'z';

/**
 * A heading without some of its parts. Where the last of them went with the full stop that ended the heading, what is
 * left ends with it. The same field when nothing goes.
 */
export function withoutParts(f: DataField, goes: (s: Subfield, i: number) => boolean): DataField {
  const subfields = f.subfields.filter((s, i) => !goes(s, i));
  if (subfields.length === f.subfields.length) return f;
  const last = f.subfields.findLast(isText);
  const left = subfields.findLast(isText);
  const ended = last !== left && /\.\s*$/.test(last?.value ?? '') && /[\p{L}\d)]$/u.test(left?.value ?? '');
  return {
    ...f,
    subfields: ended ? subfields.map((s) => (s === left ? { ...s, value: `${s.value}.` } : s)) : subfields,
  };
}
