import { priceText } from './price';
import { INDICATOR_OF } from '../callnumbers';
import type { Versioned } from '../changes';
import { controlValue, type DataField, type MarcRecord, type Subfield } from '../marc';
import { localOf, type KeptLocalField } from './local-fields';
import type { Copy, Holding } from './objects';
import { asExported } from './taken-fields';

/** What stands of a title on the shelf. */
export interface OnShelf {
  readonly holdings: readonly Versioned<Holding, 'holding'>[];
  readonly copies: readonly Versioned<Copy, 'copy'>[];
  /** ISO 4217 code of the library's currency. */
  readonly currency: string;
  /** The local fields of the library; what copies have in them goes into notes for the staff. */
  readonly fields?: readonly KeptLocalField[];
}

const field = (
  tag: string,
  ind1: string,
  ...subfields: readonly (readonly [string, string | undefined])[]
): DataField => ({
  tag,
  ind1,
  ind2: ' ',
  subfields: subfields.flatMap(([code, value]): Subfield[] =>
    value !== undefined && value.trim() !== '' ? [{ code, value: value.trim() }] : [],
  ),
});

/** Location and call number (852); with a copy, its barcode, number and condition too. */
const location = (link: string, h: Holding, copy?: Copy): DataField =>
  field(
    '852',
    INDICATOR_OF[h.scheme],
    ['8', link],
    ['3', copy?.part],
    ['b', h.branch],
    ['c', h.location],
    ['k', h.prefix],
    ['h', h.class],
    ['i', [h.item, h.year].filter(Boolean).join(' ')],
    ['m', h.suffix],
    ['p', copy?.barcode],
    ['q', copy?.condition],
    ['t', copy && copy.number > 0 ? String(copy.number) : undefined],
    ['x', h.staffNote],
    ['z', h.note],
  );

/** What is known of one copy (876). Fund and type have no subfield there; local fields are notes for the staff, under their names. */
const item = (link: string, c: Copy, { currency, fields = [] }: OnShelf): DataField =>
  field(
    '876',
    ' ',
    ['8', link],
    ['3', c.part],
    ['c', c.price === null ? undefined : priceText(c.price, c.currency ?? currency)],
    ['d', c.acquired.replaceAll('-', '')],
    ['e', c.supplier],
    ['h', c.loanRule],
    ['j', c.status],
    ['p', c.barcode],
    ['t', c.number > 0 ? String(c.number) : undefined],
    ['x', c.staffNote],
    ...fields.map(({ id, value: { name } }): readonly [string, string | undefined] => {
      const value = localOf(c, id);
      return ['x', value && `${name}: ${value}`];
    }),
    ['z', c.note],
  );

/** Where holdings data stand among the fields of a record. */
const withFields = (record: MarcRecord, fields: readonly DataField[]): MarcRecord => {
  const at = record.fields.findIndex((f) => f.tag > '876');
  const place = at < 0 ? record.fields.length : at;
  return { ...record, fields: [...record.fields.slice(0, place), ...fields, ...record.fields.slice(place)] };
};

/**
 * A record with its holdings and copies in it: a pair of 852 and 876 for each copy, linked by $8, and an 852 for a holding without copies (MARC 21
 * Format for Holdings Data). What it had in these fields goes.
 */
export function withHoldings(record: MarcRecord, onShelf: OnShelf): MarcRecord {
  const { holdings, copies } = onShelf;
  const fields: DataField[] = [];
  let link = 0;
  for (const h of holdings) {
    const on = copies.filter((c) => c.value.holding === h.id);
    if (on.length === 0) fields.push(location(String(++link), h.value));
    for (const { value } of on) {
      const number = String(++link);
      fields.push(location(number, h.value, value), item(number, value, onShelf));
    }
  }
  return withFields(asExported(record, holdings.length > 0), fields);
}

/** A part as its caption and number: "v. 2" is v., 2. Null for what is no such thing. */
const numbered = (part: string): { caption: string; number: string } | null => {
  const found = /^(\p{L}[\p{L}. ]*?)\s*(\d+(?:[-/]\d+)?)$/u.exec(part.trim());
  return found ? { caption: found[1]!.trim(), number: found[2]! } : null;
};

/** Enumeration of the parts of a holding: captions and numbers (853, 863) where all have one caption, else in words (866). */
function enumeration(parts: readonly string[]): { fields: DataField[]; linkOf: (part: string) => string } {
  const read = parts.map(numbered);
  const caption = read[0]?.caption;
  if (caption !== undefined && read.every((r) => r?.caption === caption))
    return {
      fields: [
        field('853', '0', ['8', '1'], ['a', caption]),
        ...read.map((r, i) => field('863', '4', ['8', `1.${i + 1}`], ['a', r?.number])),
      ],
      linkOf: (part) => `1.${parts.indexOf(part) + 1}`,
    };
  return {
    fields: parts.length ? [{ ...field('866', '4', ['8', '0'], ['a', parts.join(', ')]), ind2: '0' }] : [],
    linkOf: () => '0',
  };
}

/**
 * 008 of a holdings record (MARC 21 Holdings, 008): received and complete, how is unknown; what is not said is unknown or not applicable. `day` is an
 * ISO date.
 */
const fixedFields = (day: string, hasParts: boolean, copies: number): string =>
  [
    day.slice(2).replaceAll('-', ''),
    '2u    0   ',
    hasParts ? '0' : '4',
    String(Math.min(999, copies)).padStart(3, '0'),
    'uuund0000000',
  ].join('');

/**
 * Holdings of a title as records of their own, one for each holding (MARC 21 Format for Holdings Data): leader 6 `x` for a single part, `v` for several;
 * 004 has the number of the bibliographic record; 852, 853/863 or 866, and 876 for each copy.
 */
export const holdingsRecords = (
  id: number,
  record: MarcRecord,
  onShelf: OnShelf,
  day: string,
): MarcRecord[] =>
  onShelf.holdings.map((h): MarcRecord => {
    const on = onShelf.copies.filter((c) => c.value.holding === h.id).map((c) => c.value);
    const parts = [...new Set(on.flatMap((c) => (c.part ? [c.part] : [])))];
    const { fields, linkOf } = enumeration(parts);
    return {
      leader: `00000n${parts.length ? 'v' : 'x'}  a2200000un 4500`,
      fields: [
        { tag: '001', value: `${id}-${h.id}` },
        { tag: '004', value: controlValue(record, '001') ?? String(id) },
        { tag: '008', value: fixedFields(day, parts.length > 0, on.length) },
        location('0', h.value),
        ...fields,
        ...on.map((c) => item(c.part ? linkOf(c.part) : '0', c, onShelf)),
      ],
    };
  });
