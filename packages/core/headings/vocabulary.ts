import { isData, type DataField, type MarcRecord } from '../marc';

/** Names and titles, wherever they stand as an access point, are of one vocabulary (its MARC source code). */
export const NAMES = 'naf';
/** Subjects whose field does not say where they come from (second indicator 4, or 7 without $2). */
const UNSPECIFIED = 'unspecified';

/** Second indicator of 600–655 (MARC 21 Bibliographic, 6XX), as codes of the list Subject Heading and Term Source Codes. */
const BY_INDICATOR: Record<string, string> = {
  0: 'lcsh',
  1: 'lcshac',
  2: 'mesh',
  3: 'nal',
  4: UNSPECIFIED,
  5: 'cash',
  6: 'rvm',
};

/** 008/11 of an authority record (MARC 21 Authority, 008): the subject heading system it belongs to. */
const BY_SYSTEM: Record<string, string> = {
  a: 'lcsh',
  b: 'lcshac',
  c: 'mesh',
  d: 'nal',
  k: 'cash',
  r: 'aat',
  s: 'sears',
  v: 'rvm',
};
const SYSTEM_OF = new Map(Object.entries(BY_SYSTEM).map(([system, code]) => [code, system]));

const SYSTEM = 11;
const isName = (tag: string) => /^.(00|10|11|30)$/.test(tag);
const sourceIn = (f: DataField, code: string) =>
  f.subfields
    .find((s) => s.code === code)
    ?.value.trim()
    .toLowerCase() || UNSPECIFIED;

/**
 * The vocabulary an access field's heading belongs to, as a source code. Names and titles of 1XX, 7XX, 8XX, and of 600–630
 * with second indicator 0 or 1, share one; other 6XX go by second indicator and $2.
 */
export function vocabularyOfField(f: DataField): string {
  if (f.tag[0] !== '6') return NAMES;
  if (isName(f.tag) && (f.ind2 === '0' || f.ind2 === '1')) return NAMES;
  return f.ind2 === '7' ? sourceIn(f, '2') : (BY_INDICATOR[f.ind2] ?? UNSPECIFIED);
}

/** The vocabulary of an authority record: 008/11, and 040 $f where that says "other"; LC's where it says nothing. */
export function vocabularyOfAuthority(marc: MarcRecord): string {
  const fixed = marc.fields.find((f) => f.tag === '008');
  const system = fixed && !isData(fixed) ? (fixed.value[SYSTEM] ?? '') : '';
  const heading = marc.fields.find((f) => isData(f) && f.tag[0] === '1');
  if (system === 'z') {
    const source = marc.fields.find((f): f is DataField => isData(f) && f.tag === '040');
    return source ? sourceIn(source, 'f') : UNSPECIFIED;
  }
  if (heading && isName(heading.tag) && (system === 'a' || system === 'b' || BY_SYSTEM[system] === undefined))
    return NAMES;
  return BY_SYSTEM[system] ?? 'lcsh';
}

/** The fields by which a new authority record says its vocabulary; none where that goes without saying. */
export function vocabularyFields(vocabulary: string, tag: string): MarcRecord['fields'] {
  if (vocabulary === (isName(tag) ? NAMES : 'lcsh')) return [];
  const system = SYSTEM_OF.get(vocabulary) ?? 'z';
  const fixed = { tag: '008', value: `${'|'.repeat(SYSTEM)}${system}${'|'.repeat(28)}` };
  return system === 'z'
    ? [fixed, { tag: '040', ind1: ' ', ind2: ' ', subfields: [{ code: 'f', value: vocabulary }] }]
    : [fixed];
}
