import type { Id } from '../changes';
import { field, isData, subjectString, type DataField, type MarcRecord } from '../marc';
import {
  headingIdentity,
  headingKey,
  headingsIn,
  kindOfTag,
  type HeadingKind,
  type HeadingUse,
} from './normal-form';
import { vocabularyFields, vocabularyOfAuthority } from './vocabulary';

/** A heading of the catalogue: its authority record, and where it leads when it was merged away. */
export interface Heading {
  readonly kind: HeadingKind;
  readonly marc: MarcRecord;
  readonly mergedInto: Id<'heading'> | null;
}

const TAGS: Record<HeadingKind, string> = {
  personal: '100',
  corporate: '110',
  meeting: '111',
  title: '130',
  'name-title': '100',
  topic: '150',
  place: '151',
  period: '148',
  genre: '155',
};

/** The tag of the kept form of a new heading of a kind (1XX); of a title behind a name, that of a person. */
export const headingTag = (kind: HeadingKind): string => TAGS[kind];

/** A heading with the fields of a new authority record. */
export const authorityFields = (kind: HeadingKind, fields: MarcRecord['fields']): Heading => ({
  kind,
  marc: { leader: '00000nz  a2200000n  4500', fields },
  mergedInto: null,
});

/** A new authority record for a heading as it stands in a record (MARC 21 Format for Authority Data). */
export function headingFrom(use: HeadingUse): Heading {
  const { kind, vocabulary, tag, ind1, ind2, subfields } = use;
  return authorityFields(kind, [...vocabularyFields(vocabulary, tag), { tag, ind1, ind2, subfields }]);
}

/**
 * Whether somebody has established a heading: its authority record has a number, sources, notes or other forms, and not only the form
 * that some record carried.
 */
export const isEstablished = ({ marc }: Heading): boolean =>
  marc.fields.some((f) => /^(001|010|[45]..|6[67].)$/.test(f.tag));

/** The 1XX field of a heading. */
export function keptForm(heading: Heading): DataField {
  const found = heading.marc.fields.find((f) => isData(f) && f.tag[0] === '1');
  return found && isData(found) ? found : field('100', '  ');
}

/** The see-from fields (4XX). */
export const seeFroms = (heading: Heading): DataField[] =>
  heading.marc.fields.filter((f): f is DataField => isData(f) && f.tag[0] === '4');

/** The see-also fields (5XX). */
export const seeAlsos = (heading: Heading): DataField[] =>
  heading.marc.fields.filter((f): f is DataField => isData(f) && f.tag[0] === '5');

const isTitled = (f: DataField): boolean =>
  /^.(00|10|11)$/.test(f.tag) && f.subfields.some((s) => s.code === 't');

/** The kind of headings that a field of an authority record names (1XX, 4XX, 5XX); null for those that have no authority record here. */
export function kindOfTracing(f: DataField): HeadingKind | null {
  if (!/^[145]/.test(f.tag)) return null;
  return isTitled(f) ? 'name-title' : (kindOfTag(f.tag) ?? null);
}

/** The key of a see-from (4XX), by which it is met in records: what says what kind of tracing it is ($w) does not count. */
export const seeFromKey = ({ subfields }: DataField): string =>
  headingKey(subfields.filter((s) => /[a-z]/.test(s.code) && s.code !== 'w'));

/** A form as it is read: its subfields in a line, subdivisions behind dashes. */
export const formText = (f: DataField): string => subjectString(f);

/** The kept form of a heading as it is read. */
export const headingText = (heading: Heading): string => formText(keptForm(heading));
/** The key of a heading’s kept form. */
export const keyOfHeading = (heading: Heading): string =>
  headingKey(keptForm(heading).subfields.filter((s) => /[a-z]/.test(s.code)));

/** What a heading is known by: kind, vocabulary and key of its kept form. */
export const identityOf = (heading: Heading): Pick<HeadingUse, 'kind' | 'vocabulary' | 'key'> => ({
  kind: heading.kind,
  vocabulary: vocabularyOfAuthority(heading.marc),
  key: keyOfHeading(heading),
});

/** Gives the headings that a record uses, each once. */
export type HeadingReader = (record: MarcRecord) => readonly HeadingUse[];

/** Reads each record once, as long as it is asked about the same ones: for work that looks at their headings from several sides. */
export function headingReader(): HeadingReader {
  const read = new WeakMap<MarcRecord, readonly HeadingUse[]>();
  return (record) => {
    const known = read.get(record);
    if (known) return known;
    const uses = headingsOf(record);
    read.set(record, uses);
    return uses;
  };
}

/** All headings that a record uses, each once. */
export function headingsOf(record: MarcRecord): HeadingUse[] {
  const uses = new Map<string, HeadingUse>();
  for (const f of record.fields) {
    for (const use of isData(f) ? headingsIn(f) : []) {
      const identity = headingIdentity(use);
      if (!uses.has(identity)) uses.set(identity, use);
    }
  }
  return [...uses.values()];
}
