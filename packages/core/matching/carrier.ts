import { controlValue, dataFields, firstValue, values, type MarcRecord } from '../marc';
import { fold } from '../text';

/** What kind of thing a record describes, as far as two records of one work must not be taken for each other. */
export type Carrier =
  | 'book'
  | 'large print'
  | 'braille'
  | 'e-book'
  | 'microform'
  | 'score'
  | 'map'
  | 'video'
  | 'sound recording'
  | 'music recording'
  | 'picture'
  | 'computer file'
  | 'kit'
  | 'object'
  | 'mixed';

const BY_TYPE: Record<string, Carrier> = {
  c: 'score',
  d: 'score',
  e: 'map',
  f: 'map',
  g: 'video',
  i: 'sound recording',
  j: 'music recording',
  k: 'picture',
  m: 'computer file',
  o: 'kit',
  p: 'mixed',
  r: 'object',
};
/** 008/23 or 29, form of item (MARC 21, 006 and 008). */
const BY_FORM: Record<string, Carrier> = {
  a: 'microform',
  b: 'microform',
  c: 'microform',
  d: 'large print',
  f: 'braille',
  o: 'e-book',
  s: 'e-book',
};

/** From leader/06, form of item, carrier type (338), extent and the general material designation. */
export function carrierOf(record: MarcRecord): Carrier {
  const type = record.leader[6] ?? 'a';
  const said = fold(
    [
      ...dataFields(record, '245').flatMap((f) => values(f, 'h')),
      firstValue(record, '300', 'a') ?? '',
      ...dataFields(record, '338').flatMap((f) => values(f, 'ab')),
    ].join(' '),
  );
  const online = /\bonline resource\b|\belectronic (resource|book)\b|\bebook\b|\be book\b|^cr\b|\bcr$/.test(
    said,
  );
  if (type === 'a' || type === 't') {
    const fixed = controlValue(record, '008') ?? '';
    if (online) return 'e-book';
    return BY_FORM[fixed[23] ?? ' '] ?? carrierNamed(said) ?? 'book';
  }
  const plain = BY_TYPE[type] ?? 'book';
  return plain === 'computer file' && online ? 'e-book' : plain;
}

const NAMED: readonly (readonly [RegExp, Carrier])[] = [
  [/\b(e ?books?|ebk|epub|pdf|electronic|online|kindle)\b/, 'e-book'],
  [/\b(large print|large type)\b/, 'large print'],
  [/\b(audio ?books?|audio ?discs?|audio cds?|mp3|sound discs?|compact discs?)\b/, 'sound recording'],
  [/\b(dvds?|video ?discs?|video ?recording|blu ?ray|video ?cassettes?)\b/, 'video'],
  [/\b(braille)\b/, 'braille'],
  [/\b(microfiches?|microfilms?)\b/, 'microform'],
  [/\b(pbk|paperback|hbk|hardback|hardcover|hc|cloth|board book|print)\b/, 'book'],
];

/** The kind of thing that a qualifier or an extent names, from folded text; null when it names none. */
export const carrierNamed = (said: string): Carrier | null =>
  NAMED.find(([pattern]) => pattern.test(said))?.[1] ?? null;
