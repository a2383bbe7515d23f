import { isData, type DataField, type MarcRecord, type Subfield } from '../marc';
import { headingKey, standingAlone } from './normal-form';
import { isSubjectType, nameTitlePart, ownPart, subjectBeginning, typeOfTag, type OwnPart } from './own-part';
import { vocabularyOfAuthority, vocabularyOfField } from './vocabulary';

/** A heading as merging knows it: what it is, and its form by itself. */
export interface MergeForm {
  /** `00`, `10` …, or `00 title` for a name with a title. */
  readonly type: string;
  readonly vocabulary: string;
  readonly subfields: readonly Subfield[];
  readonly key: string;
  /** The field it was read from, for its indicators. */
  readonly field: DataField;
}

function formIn(f: DataField, vocabulary: string): MergeForm | null {
  const part = nameTitlePart(f) ?? ownPart(f);
  if (!part) return null;
  const subfields = standingAlone(part.at.map((i) => f.subfields[i]!));
  const key = headingKey(subfields);
  return key === '' ? null : { type: part.type, vocabulary, subfields, key, field: f };
}

/** The heading of an authority record; null when it has none that can be merged. */
export function formOfAuthority(marc: MarcRecord): MergeForm | null {
  const heading = marc.fields.find(
    (f): f is DataField => isData(f) && f.tag[0] === '1' && typeOfTag(f.tag) !== null,
  );
  return heading ? formIn(heading, vocabularyOfAuthority(marc)) : null;
}

/** The heading of one access field of a bibliographic record. */
export const formOfField = (f: DataField): MergeForm | null => formIn(f, vocabularyOfField(f));

/** Where a form stands in a field: it whole, the name before a title, the beginning of a subject. Null where it does not. */
export function standsIn(form: MergeForm, f: DataField): OwnPart | null {
  const part = partLike(form, f);
  if (!part) return null;
  const key = headingKey(standingAlone(part.at.map((i) => f.subfields[i]!)));
  return key === form.key ? part : null;
}

function partLike({ type, subfields }: MergeForm, f: DataField): OwnPart | null {
  if (typeOfTag(f.tag) !== type.slice(0, 2)) return null;
  if (type.endsWith('title')) return nameTitlePart(f);
  return isSubjectType(type)
    ? subjectBeginning(
        f,
        subfields.map((s) => s.code),
      )
    : ownPart(f);
}
