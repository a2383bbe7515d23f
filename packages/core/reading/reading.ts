import { readIsbn, withoutEndPunctuation } from '../access';
import { codeName } from '../format';
import { headingIdentity, headingsIn } from '../headings';
import {
  controlValue,
  dataFields,
  first,
  isData,
  subjectString,
  values,
  type DataField,
  type MarcRecord,
} from '../marc';

/** What of a record is read together, in the order in which a book is compared with it. */
export const READING_PARTS = [
  'title',
  'uniformTitles',
  'names',
  'edition',
  'publication',
  'description',
  'series',
  'isbns',
  'language',
  'summary',
  'contents',
  'subjects',
  'classes',
  'notes',
  'links',
] as const;
export type ReadingPart = (typeof READING_PARTS)[number];

/** One thing that is read, and where it leads on. */
export interface Read {
  readonly text: string;
  /** Groups and keys of the headings that it is (`headingIdentity`), the one that says most first. */
  readonly headings?: readonly string[];
  /** Words that find others with the same. */
  readonly words?: string;
  /** An address on the web, http or https alone. */
  readonly address?: string;
  /** The same in its own script. */
  readonly original?: string;
}

/** Subfields of a uniform title (MARC 21 Bibliographic, X30 and 240), the medium left aside. */
const UNIFORM = 'adfgklmnoprst';

/** The words of a field without control subfields. */
const wordsOf = (f: DataField, codes?: string): string =>
  f.subfields
    .filter((s) =>
      codes ? codes.includes(s.code) : /[a-z]/.test(s.code) && s.code !== 'u' && s.code !== 'w',
    )
    .map((s) => s.value.trim())
    .join(' ');

/** The partner of a field in its own script (880). */
function originalOf(record: MarcRecord, f: DataField, codes?: string): string | undefined {
  const number = /^880-(\d\d)/.exec(first(f, '6') ?? '')?.[1];
  if (!number || number === '00') return undefined;
  const partner = dataFields(record, '880').find((p) =>
    (first(p, '6') ?? '').startsWith(`${f.tag}-${number}`),
  );
  return partner ? wordsOf(partner, codes) : undefined;
}

function nameOf(record: MarcRecord, f: DataField): Read {
  const roles = f.subfields
    .filter((s) => s.code === 'e' || (s.code === '4' && !f.subfields.some((x) => x.code === 'e')))
    .map((s) => (s.code === '4' ? (codeName('relators', s.value)?.toLowerCase() ?? s.value) : s.value))
    .map((role) => role.replace(/[.,\s]+$/, ''));
  const name = withoutEndPunctuation(wordsOf(f, 'abcdqtnp').replace(/,$/, ''));
  return {
    text: roles.length ? `${name} (${roles.join(', ')})` : name,
    ...leads(f),
    ...original(record, f, 'abcdqtnp'),
  };
}

const leads = (f: DataField): Pick<Read, 'headings'> => {
  const uses = headingsIn(f);
  return uses.length ? { headings: uses.map(headingIdentity).reverse() } : {};
};
const original = (record: MarcRecord, f: DataField, codes?: string): Pick<Read, 'original'> => {
  const text = originalOf(record, f, codes);
  return text ? { original: text } : {};
};

/** http and https lead on; anything else is text. */
const isWeb = (address: string): boolean => /^https?:\/\/[^\s]+$/i.test(address);

function linkOf(f: DataField): Read[] {
  const label = [first(f, '3'), first(f, 'y') ?? first(f, 'z')].filter(Boolean).join(': ');
  return values(f, 'u').map((address) => ({
    text: label || address,
    ...(isWeb(address.trim()) && { address: address.trim() }),
  }));
}

const of = (record: MarcRecord, tag: RegExp): DataField[] => dataFields(record, tag);

/** Series as the book has them; each that is traced leads to the heading of its tracing (490 with first indicator 1, and the 8XX in the same order). */
function seriesOf(record: MarcRecord): Read[] {
  const stated = of(record, /^490$/);
  const traced = stated.filter((f) => f.ind1 === '1');
  const tracings = of(record, /^8(00|10|11|30)$/);
  return stated.map((f) => {
    const tracing = traced.length === tracings.length ? tracings[traced.indexOf(f)] : undefined;
    return {
      text: wordsOf(f, 'anpv'),
      words: withoutEndPunctuation(first(f, 'a') ?? ''),
      ...(tracing && leads(tracing)),
    };
  });
}

/** A record as it is read beside the book: title, names with their roles, publication and so on; parts without text are left out. */
export function readingOf(
  record: MarcRecord,
): readonly { readonly part: ReadingPart; readonly read: readonly Read[] }[] {
  const plain = (tag: RegExp, codes?: string): Read[] =>
    of(record, tag).map((f) => ({ text: wordsOf(f, codes), ...original(record, f, codes) }));
  const language = controlValue(record, '008')?.slice(35, 38) ?? '';
  const parts: Readonly<Record<ReadingPart, readonly Read[]>> = {
    title: plain(/^245$/),
    uniformTitles: of(record, /^(130|240|730)$/).map((f) => ({
      text: withoutEndPunctuation(wordsOf(f, UNIFORM)),
      ...leads(f),
      ...original(record, f, UNIFORM),
    })),
    names: of(record, /^(1|7)(00|10|11)$/).map((f) => nameOf(record, f)),
    edition: plain(/^250$/),
    publication: plain(/^26[04]$/, 'abc'),
    description: plain(/^300$/),
    series: seriesOf(record),
    isbns: of(record, /^020$/).flatMap((f) =>
      values(f, 'a').map((text) => ({
        text: [text, ...values(f, 'q')].join(' '),
        ...(readIsbn(text)?.isbn13 && { words: readIsbn(text)!.isbn13! }),
      })),
    ),
    language: codeName('languages', language) ? [{ text: codeName('languages', language)! }] : [],
    summary: plain(/^520$/),
    contents: plain(/^505$/),
    subjects: of(record, /^6(00|10|11|30|48|50|51|55)$/).map((f) => ({
      text: withoutEndPunctuation(subjectString(f)),
      ...leads(f),
    })),
    classes: of(record, /^(050|060|082|08[04]|09[0269])$/).map((f) => ({
      text: wordsOf(f, 'ab'),
      words: (first(f, 'a') ?? '').replace(/[/′'].*$/, ''),
    })),
    notes: of(record, /^5(?!05|20)\d\d$/).map((f) => ({ text: wordsOf(f) })),
    links: record.fields.flatMap((f) => (f.tag === '856' && isData(f) ? linkOf(f) : [])),
  };
  return READING_PARTS.map((part) => ({ part, read: parts[part].filter((r) => r.text !== '') })).filter(
    ({ read }) => read.length > 0,
  );
}
