import { isControl, isData, type DataField, type Field, type MarcRecord, type Where } from '../marc';
import type { Address, Alternatives, AddressCondition, Range, SubfieldAddress, Term } from './address';

/** Text that an address points at, and its place. A whole data field is its subfields' text joined by blanks. */
export interface Found {
  readonly text: string;
  readonly where: Where;
}

/** Everything in the record that the address points at, in the order of the record. */
export const findAll = (record: MarcRecord, address: Address): Found[] => allIn(looking(record), address);

const allIn = (look: Look, address: Address): Found[] =>
  fieldsOf(look.record, address).flatMap((place) => inField(look, place, address));

/**
 * One look at a record. What a condition finds is found once: for an address of the record at all, for one of the field it
 * stands in once a field, however often conditions in conditions ask for it.
 */
interface Look {
  readonly record: MarcRecord;
  readonly inRecord: Map<Address, readonly string[]>;
  readonly inFields: Map<Omit<Address, 'tag'>, Map<Field, readonly string[]>>;
}
const looking = (record: MarcRecord): Look => ({ record, inRecord: new Map(), inFields: new Map() });

function once<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const before = known.get(key);
  if (before !== undefined) return before;
  const made = make();
  known.set(key, made);
  return made;
}

/** The texts alone. */
export const textsAt = (record: MarcRecord, address: Address): string[] =>
  findAll(record, address).map((f) => f.text);

/** Whether the record has anything at the address. */
export const hasAny = (record: MarcRecord, address: Address): boolean => hasIn(looking(record), address);

const hasIn = (look: Look, address: Address): boolean =>
  fieldsOf(look.record, address).some((place) => inField(look, place, address).length > 0);

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

function inField(look: Look, place: Place, address: Omit<Address, 'tag'>): Found[] {
  const { field } = place;
  if (!holdAll(look, address.conditions, place, null)) return [];
  if (address.subfields.length > 0)
    return isData(field) ? address.subfields.flatMap((s) => inSubfields(look, { ...place, field }, s)) : [];
  if (address.indicator)
    return isData(field)
      ? [{ text: address.indicator === 1 ? field.ind1 : field.ind2, where: place.where }]
      : [];
  const text = isControl(field) ? field.value : field.subfields.map((s) => s.value).join(' ');
  return characters(text, address.characters, place.where);
}

function inSubfields(
  look: Look,
  place: Place & { readonly field: DataField },
  address: SubfieldAddress,
): Found[] {
  const all = place.field.subfields.flatMap((s, i) =>
    s.code >= address.from && s.code <= address.to
      ? [{ text: s.value, where: { ...place.where, subfield: i, code: s.code } }]
      : [],
  );
  return chosen(all, address.index)
    .filter((found) => holdAll(look, address.conditions, place, found))
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
  look: Look,
  conditions: readonly Alternatives[],
  place: Place,
  subfield: Found | null,
): boolean => conditions.every((alternatives) => alternatives.some((c) => holds(look, c, place, subfield)));

function holds(look: Look, c: AddressCondition, place: Place, subfield: Found | null): boolean {
  const left = termTexts(look, c.left, place, subfield);
  if (c.operator === '?') return left.length > 0;
  if (c.operator === '!') return left.length === 0;
  const right = termTexts(look, c.right, place, subfield);
  switch (c.operator) {
    case '=':
      return isShared(left, right);
    case '!=':
      return !isShared(left, right);
    case '~':
      return left.some((l) => right.some((r) => l.includes(r)));
    case '!~':
      return !left.some((l) => right.some((r) => l.includes(r)));
  }
}

function isShared(left: readonly string[], right: readonly string[]): boolean {
  const among = new Set(right);
  return left.some((l) => among.has(l));
}

function termTexts(look: Look, term: Term, place: Place, subfield: Found | null): readonly string[] {
  if (term.kind === 'text') return [term.text];
  if (term.kind === 'record')
    return once(look.inRecord, term.address, () => allIn(look, term.address).map((f) => f.text));
  const { address } = term;
  const itself = address.subfields.length === 0 && !address.indicator;
  if (itself && subfield)
    return characters(subfield.text, address.characters, subfield.where).map((f) => f.text);
  const known = once(look.inFields, address, () => new Map<Field, readonly string[]>());
  return once(known, place.field, () => inField(look, place, address).map((f) => f.text));
}
