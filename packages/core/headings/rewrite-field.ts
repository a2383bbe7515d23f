import { isData, type DataField, type MarcRecord, type Subfield } from '../marc';
import { endTrimmed, ownStop } from './end-marks';
import type { MergeForm } from './merge-form';
import { beginsTitle, relatorCodes, typeOfTag, type OwnPart } from './own-part';

/** How the access fields of a record are punctuated. */
export interface Punctuation {
  /** There are marks between elements and at the end (leader 18 is not `c` or `n`). */
  readonly marks: boolean;
  /** Fields end in a full stop, so that one that ends in an initial, a bracket or a hyphen would have one too. */
  readonly stops: boolean;
}

/** Reads it from the leader, and from those of the record's fields that end in something that says it. */
export function punctuationOf({ leader, fields }: MarcRecord): Punctuation {
  if (leader[18] === 'c' || leader[18] === 'n') return { marks: false, stops: false };
  const ends = fields.flatMap((f) =>
    isData(f) && f.tag[0] !== '4' && typeOfTag(f.tag) !== null
      ? (f.subfields.filter(isText).at(-1)?.value.trim() ?? [])
      : [],
  );
  const telling = ends.filter((e) => !standsForStop(e) && !(e.endsWith('.') && ownStop(e)));
  return {
    marks: true,
    stops: telling.length === 0 || telling.filter((e) => hasStop(e)).length * 2 >= telling.length,
  };
}

const isText = ({ code }: Subfield) => /[a-z]/.test(code) && code !== 'w';
/** A closing bracket or the hyphen of an open date stands for a full stop. */
const standsForStop = (text: string) => /[)\]-]$/.test(text);
const hasStop = (text: string) => /[.?!]$/.test(text);

/**
 * A field in which one heading takes the place of another: just its own subfields are exchanged, the marks between it and
 * what follows are made anew, the field's final stop stays, and the numbers ($0, $1) of the old one go.
 */
export function withForm(f: DataField, part: OwnPart, form: MergeForm, how: Punctuation): DataField {
  const own = new Set(part.at);
  const first = part.at[0]!;
  const last = part.at.at(-1)!;
  const rest = (from: number, to: number) =>
    f.subfields.filter((s, i) => i >= from && i < to && !own.has(i) && s.code !== '0' && s.code !== '1');
  const before = rest(0, first);
  const after = rest(first, f.subfields.length);
  const next = after.find(isText);
  const old = f.subfields[last]!.value.trim();
  return {
    ...f,
    ...indicatorsFor(f, form),
    subfields: [...before, ...withMark(form.subfields, next, old, f, how), ...after],
  };
}

/** The form with the mark that belongs between it and what follows. */
function withMark(
  form: readonly Subfield[],
  next: Subfield | undefined,
  old: string,
  f: DataField,
  how: Punctuation,
): Subfield[] {
  const placed = [...form];
  const end = placed.pop()!;
  const value = marked(endTrimmed(end.value), next, old, f, how);
  return [...placed, { ...end, value }];
}

function marked(
  text: string,
  next: Subfield | undefined,
  old: string,
  f: DataField,
  { marks, stops }: Punctuation,
): string {
  const had = /(\s*[,;:])$/.exec(old)?.[1] ?? '';
  if (next === undefined) {
    const own = standsForStop(old) || (old.endsWith('.') && ownStop(old));
    return marks && (own ? stops : old.endsWith('.')) ? withStop(text) : text;
  }
  if (relatorCodes(f).includes(next.code)) {
    if (text.endsWith('-')) return text;
    return marks || had.includes(',') ? `${text},` : text;
  }
  if (beginsTitle(next.code) && /^.(00|10|11)$/.test(f.tag)) {
    if (!marks && !(old.endsWith('.') && !ownStop(old))) return text;
    return text.endsWith('-') || hasStop(text) ? text : `${text}.`;
  }
  // Volume and ISSN of a series, and what else may follow, keep the mark that stood before them; none before a subdivision.
  return f.tag[0] === '8' || !'vxyz'.includes(next.code) ? text + had : text;
}

/** Text with the full stop of its field, where nothing stands for it yet. */
export const withStop = (text: string): string => (hasStop(text) || standsForStop(text) ? text : `${text}.`);

/** Kind of name, or the characters to be passed over in filing, as the form needs them; all else as in the field. */
function indicatorsFor(f: DataField, { field: from, type }: MergeForm): Partial<DataField> {
  if (/^(00|10|11)/.test(type)) return from.ind1.trim() === '' ? {} : { ind1: from.ind1 };
  if (type !== '30') return {};
  // Authority 130 and series have the count in the second indicator, other bibliographic fields in the first.
  const isSecond = (g: DataField) => g.tag[0] === '8' || g.tag[0] === '4';
  const count = isSecond(from) ? from.ind2 : from.ind1.trim() === '' ? from.ind2 : from.ind1;
  if (count.trim() === '') return {};
  return isSecond(f) ? { ind2: count } : { ind1: count };
}
