import { isControl, isData, type DataField, type Field, type MarcRecord, type Where } from '../marc';
import type { Address, Alternatives, Condition, Range, SubfieldAddress, Term } from './address';

/** Text that an address points at, and its place. A whole data field is its subfields' text joined by blanks. */
export interface Found {
  readonly text: string;
  readonly where: Where;
}

/** Everything in the record that the address points at, in the order of the record. */
export function findAll(record: MarcRecord, address: Address): Found[] {
  return fieldsOf(record, address).flatMap((place) => inField(record, place, address));
}

/** The texts alone. */
export const textsAt = (record: MarcRecord, address: Address): string[] =>
  findAll(record, address).map((f) => f.text);

/** Whether the record has anything at the address. */
export const hasAny = (record: MarcRecord, address: Address): boolean =>
  fieldsOf(record, address).some((place) => inField(record, place, address).length > 0);

/** A field, or the leader, with its place. */
interface Place {
  readonly field: Field;
  readonly where: Where;
}

function fieldsOf(record: MarcRecord, address: Address): Place[] {
  if (address.tag === 'LDR')
    return [{ field: { tag: 'LDR', value: record.leader }, where: { field: -1, tag: 'LDR', occurrence: 0 } }];
  const seen = new Map<string, number>();
  const all: Place[] = [];
  record.fields.forEach((field, at) => {
    const occurrence = seen.get(field.tag) ?? 0;
    seen.set(field.tag, occurrence + 1);
    if (matchesTag(field.tag, address.tag))
      all.push({ field, where: { field: at, tag: field.tag, occurrence } });
  });
  return chosen(all, address.index);
}

function matchesTag(tag: string, pattern: string): boolean {
  for (let i = 0; i < 3; i++) if (pattern[i] !== '.' && pattern[i] !== tag[i]) return false;
  return tag.length === 3;
}

function inField(record: MarcRecord, place: Place, address: Omit<Address, 'tag'>): Found[] {
  const { field } = place;
  if (!holdAll(record, address.conditions, place, null)) return [];
  if (address.subfields.length > 0)
    return isData(field) ? address.subfields.flatMap((s) => inSubfields(record, { ...place, field }, s)) : [];
  if (address.indicator)
    return isData(field)
      ? [{ text: address.indicator === 1 ? field.ind1 : field.ind2, where: place.where }]
      : [];
  const text = isControl(field) ? field.value : field.subfields.map((s) => s.value).join(' ');
  return characters(text, address.characters, place.where);
}

function inSubfields(
  record: MarcRecord,
  place: Place & { readonly field: DataField },
  address: SubfieldAddress,
): Found[] {
  const all = place.field.subfields.flatMap((s, i) =>
    s.code >= address.from && s.code <= address.to
      ? [{ text: s.value, where: { ...place.where, subfield: i, code: s.code } }]
      : [],
  );
  return chosen(all, address.index)
    .filter((found) => holdAll(record, address.conditions, place, found))
    .flatMap((found) => characters(found.text, address.characters, found.where));
}

function characters(text: string, range: Range | undefined, where: Where): Found[] {
  if (!range) return [{ text, where }];
  const { from, to } = bounds(range, text.length);
  if (to < from) return [];
  return [{ text: text.slice(from, to + 1), where: { ...where, start: from, end: to + 1 } }];
}

function chosen<T>(all: readonly T[], range: Range | undefined): T[] {
  if (!range) return [...all];
  const { from, to } = bounds(range, all.length);
  return all.slice(from, to + 1);
}

/** First and last position; `from` beyond `to` when there is none. A range from `#` counts back from the end. */
function bounds({ from, to }: Range, length: number): { from: number; to: number } {
  const last = length - 1;
  if (from === '#') {
    const back = to === '#' ? 0 : to;
    return { from: Math.max(0, last - back), to: last };
  }
  return from > last ? { from: 1, to: 0 } : { from, to: to === '#' ? last : Math.min(to, last) };
}

const holdAll = (
  record: MarcRecord,
  conditions: readonly Alternatives[],
  place: Place,
  subfield: Found | null,
): boolean => conditions.every((alternatives) => alternatives.some((c) => holds(record, c, place, subfield)));

function holds(record: MarcRecord, c: Condition, place: Place, subfield: Found | null): boolean {
  const left = termTexts(record, c.left, place, subfield);
  if (c.operator === '?') return left.length > 0;
  if (c.operator === '!') return left.length === 0;
  const right = termTexts(record, c.right, place, subfield);
  const any = (compare: (l: string, r: string) => boolean) =>
    left.some((l) => right.some((r) => compare(l, r)));
  switch (c.operator) {
    case '=':
      return any((l, r) => l === r);
    case '!=':
      return !any((l, r) => l === r);
    case '~':
      return any((l, r) => l.includes(r));
    case '!~':
      return !any((l, r) => l.includes(r));
  }
}

function termTexts(record: MarcRecord, term: Term, place: Place, subfield: Found | null): string[] {
  if (term.kind === 'text') return [term.text];
  if (term.kind === 'record') return textsAt(record, term.address);
  const { address } = term;
  const itself = address.subfields.length === 0 && !address.indicator;
  if (itself && subfield)
    return characters(subfield.text, address.characters, subfield.where).map((f) => f.text);
  return inField(record, place, address).map((f) => f.text);
}
