import { isAddress, parseAddress, textsAt } from '../address';
import { scannedBarcode } from '../barcodes';
import {
  callNumberFault,
  offerCallNumbers,
  schemeOfIndicator,
  type CallNumberPlace,
  type Scheme,
} from '../callnumbers';
import type { HouseRules } from '../house';
import { dataFields, first, values, type DataField, type MarcRecord } from '../marc';
import { codeProblem, placeProblems, sourceProblems } from './code-check';
import { detailsOf, statusOf, supplierCode } from './copy-details';
import { partKey, type CodeLists, type CopyStatus, type LoanRule } from './objects';
import { isAddressLike, type CopyDefaults, type CopyMapping, type CopyPart, type TablePart } from './mapping';
import { costIn, isCurrency, readPrice, type Cost, type Price } from './price';

/** A copy that a record asks for, before it is made. */
export interface ProposedCopy {
  readonly branch: string;
  readonly location: string;
  readonly scheme: Scheme;
  readonly prefix: string;
  readonly class: string;
  readonly item: string;
  readonly year?: string;
  readonly suffix: string;
  /** Empty: the next of the roll, when the copy is made. */
  readonly barcode: string;
  /** A person wants it though it is not in the library's form, spoiled, or was on a copy that was withdrawn. */
  readonly keepBarcode?: boolean;
  /** The part or volume, where the record says it. */
  readonly part?: string;
  readonly number: number;
  readonly type: string;
  readonly price: number | null;
  /** ISO 4217 code of its price's currency; absent: the library's. */
  readonly currency?: string;
  readonly fund: string;
  readonly supplier: string;
  readonly note: string;
  readonly staffNote?: string;
  readonly condition?: string;
  /** ISO date; absent: the day on which it is accepted. */
  readonly acquired?: string;
  readonly loanRule?: LoanRule;
  readonly status: CopyStatus;
  /** What stands in its way, as sentences; empty when it can be made. */
  readonly problems: readonly string[];
  /** What is worth knowing: a price that was not taken. */
  readonly remarks: readonly string[];
}

/** By what copies are read from a record. */
export interface CopyRules {
  readonly mapping: CopyMapping;
  readonly defaults: CopyDefaults;
  readonly house: HouseRules;
  readonly lists: CodeLists;
}

/** A copy's fields: where it stands, and what it is. One and the same but for pairs of 852 and 876. */
interface Source {
  readonly place: DataField | null;
  readonly thing: DataField | null;
}

/**
 * The copies of a record by a supplier's mapping, with defaults for what it does not say; codes that are not on their list
 * are problems of the copy, never made right silently. A record without copy data gives as many copies as the defaults say.
 */
export function copiesFrom(record: MarcRecord, rules: CopyRules): ProposedCopy[] {
  const sources = sourcesOf(record, rules.mapping);
  const found = sources.flatMap((source) => {
    const barcodes = barcodesOf(record, source, rules);
    const wanted = Math.max(Number(part(record, source, rules.mapping, 'copies')) || 1, barcodes.length);
    return Array.from({ length: Math.min(wanted, MOST) }, (_, i) => ({ source, barcode: barcodes[i] ?? '' }));
  });
  const all = found.length
    ? found
    : Array.from({ length: Math.min(rules.defaults.copies, MOST) }, () => ({ source: NOTHING, barcode: '' }));
  const counted = new Map<string, number>();
  return all.map(({ source, barcode }) => {
    const of = partKey(partOf(record, source, rules.mapping));
    counted.set(of, (counted.get(of) ?? 0) + 1);
    return copyFrom(record, source, barcode, counted.get(of)!, rules);
  });
}
/** More copies of one title than this are not asked for in one delivery; a larger number is a slip. */
const MOST = 99;
const NOTHING: Source = { place: null, thing: null };

function sourcesOf(record: MarcRecord, { tag }: CopyMapping): Source[] {
  if (tag === '') return [];
  const fields = dataFields(record, tag);
  const things = tag === '852' ? dataFields(record, '876') : [];
  if (things.length === 0) return fields.map((f) => ({ place: f, thing: f }));
  // 876 belongs to the 852 that it is linked to ($8), else to the one in the same place, else to the first.
  return things.map((thing, i) => {
    const link = linkOf(thing);
    const place =
      (link && fields.find((f) => linkOf(f) === link)) ||
      (fields.length === things.length ? fields[i] : fields[0]);
    return { place: place ?? null, thing };
  });
}
const linkOf = (f: DataField) => /^\d+/.exec(first(f, '8') ?? '')?.[0];

/** Parts that stand in 852 itself where copies are pairs of 852 and 876. */
const OF_PLACE: ReadonlySet<CopyPart> = new Set(['branch', 'location', 'class', 'item', 'condition']);
/** 876 has subfields of its own for these (MARC 21 Format for Holdings Data, 876). */
const IN_876: Partial<Record<CopyPart, string>> = {
  barcode: 'p',
  part: '3',
  price: 'c',
  acquired: 'd',
  supplier: 'e',
  loanRule: 'h',
  status: 'j',
  number: 't',
  staffNote: 'x',
  note: 'z',
};

const part = (record: MarcRecord, source: Source, mapping: CopyMapping, name: CopyPart): string =>
  partsAt(record, source, mapping, name).join(' ').trim();

/** The part or volume of a copy: of its 876, else of the 852 that it stands at. */
const partOf = (record: MarcRecord, source: Source, mapping: CopyMapping): string =>
  part(record, source, mapping, 'part') ||
  (source.place?.tag === '852' && mapping.subfields.part ? (first(source.place, '3') ?? '').trim() : '');

/** A field that has several barcodes stands for as many copies. */
const barcodesOf = (record: MarcRecord, source: Source, { mapping, house }: CopyRules): string[] =>
  partsAt(record, source, mapping, 'barcode')
    .map((code) => scannedBarcode(code, house.barcodes))
    .filter((code) => code !== '');

function partsAt(
  record: MarcRecord,
  { place, thing }: Source,
  { tag, subfields }: CopyMapping,
  name: CopyPart,
): readonly string[] {
  const written = subfields[name] ?? '';
  if (isAddressLike(written)) {
    const address = parseAddress(written);
    return isAddress(address) ? textsAt(record, address).slice(0, 1) : [];
  }
  const ofThing = tag === '852' && thing?.tag === '876' && !OF_PLACE.has(name);
  const f = OF_PLACE.has(name) ? place : thing;
  const code = ofThing ? IN_876[name] : subfields[name];
  return f && code ? values(f, code) : [];
}

function copyFrom(
  record: MarcRecord,
  source: Source,
  barcode: string,
  ordinal: number,
  rules: CopyRules,
): ProposedCopy {
  const { mapping, defaults, lists } = rules;
  const read = (name: CopyPart) => part(record, source, mapping, name);
  const coded = (name: TablePart) => {
    const theirs = read(name);
    return theirs === '' ? defaults[name] : (mapping.tables[name]?.[theirs] ?? theirs);
  };
  const remarks: string[] = [];
  const place = { branch: coded('branch'), location: coded('location') };
  const type = coded('type');
  const call = callNumberOf(record, source, rules, { ...place, type });
  const number = Number(/\d+/.exec(read('number'))?.[0] ?? 0) || ordinal;
  const volume = partOf(record, source, mapping);
  const copy = {
    ...place,
    ...(call ?? { scheme: 'own' as const, prefix: '', class: '', item: '', suffix: '' }),
    barcode,
    ...(volume && { part: volume }),
    number,
    type,
    ...costOf(record, read('price'), type, rules, remarks),
    fund: coded('fund'),
    supplier: supplierCode(read('supplier'), lists) ?? defaults.supplier,
    note: read('note'),
    ...detailsOf(read, remarks),
    status: statusOf(read('status'), remarks) ?? defaults.status,
    remarks,
  };
  return { ...copy, problems: copyProblems(copy, lists) };
}

/** What is wrong with a proposed copy but for its barcode. */
export function copyProblems(
  copy: Pick<
    ProposedCopy,
    'branch' | 'location' | 'type' | 'prefix' | 'class' | 'item' | 'fund' | 'supplier'
  >,
  lists: CodeLists,
): string[] {
  const problems = placeProblems(copy, lists).map((p) => p.message);
  const type = codeProblem('type', 'type', copy.type, lists.types);
  if (type) problems.push(type.message);
  for (const { message } of sourceProblems(copy, lists)) problems.push(message);
  if (callNumberFault(copy))
    problems.push('There is no class number in the record to build a call number from.');
  return problems;
}

function callNumberOf(
  record: MarcRecord,
  source: Source,
  { mapping, house }: CopyRules,
  place: CallNumberPlace,
) {
  const given = part(record, source, mapping, 'class');
  if (given)
    return {
      scheme: source.place?.tag === '852' ? schemeOfIndicator(source.place.ind1) : schemeOf(given),
      prefix: source.place?.tag === '852' ? (first(source.place, 'k') ?? '').trim() : '',
      class: given,
      item: part(record, source, mapping, 'item'),
      suffix: source.place?.tag === '852' ? (first(source.place, 'm') ?? '').trim() : '',
    };
  const [offer] = offerCallNumbers(record, house, place);
  return (
    offer && {
      scheme: offer.scheme,
      prefix: offer.prefix,
      class: offer.class,
      item: offer.item,
      ...(offer.year && { year: offer.year }),
      suffix: offer.suffix,
    }
  );
}
const schemeOf = (text: string): Scheme =>
  /^\d{3}(?!\d)/.test(text) ? 'dewey' : /^[A-Z]{1,3}\d/.test(text) ? 'lc' : 'own';

/**
 * From the copy's own field; else from 365 or 020 $c, where one in the library's own currency goes before others; else the default, else what the
 * type costs.
 */
function costOf(
  record: MarcRecord,
  own: string,
  type: string,
  { defaults, house, lists }: CopyRules,
  remarks: string[],
): Cost {
  const stated = [
    ...dataFields(record, '365').flatMap((f) => values(f, 'b').map((v) => `${v} ${first(f, 'c') ?? ''}`)),
    ...dataFields(record, '020').flatMap((f) => values(f, 'c')),
  ];
  const found = statedPrice(own, house.currency, remarks);
  const ofTitle = found ? [] : stated.flatMap((text) => statedPrice(text, house.currency, remarks) ?? []);
  const price = found ?? ofTitle.find((p) => p.currency === house.currency) ?? ofTitle[0];
  if (price) return costIn(house.currency, price.amount, price.currency);
  return { price: defaults.price ?? lists.types.find((t) => t.code === type)?.price ?? null };
}

/** The price in a text, and a remark where there is a text and no price in it; null for none. */
function statedPrice(text: string, house: string, remarks: string[]): Price | null {
  if (text.trim() === '') return null;
  const price = readPrice(text, house);
  if (price && (price.currency === house || isCurrency(price.currency))) return price;
  remarks.push(
    price
      ? `The price “${text.trim()}” was not taken: ${price.currency} is no currency (ISO 4217).`
      : `“${text.trim()}” is not a price.`,
  );
  return null;
}
