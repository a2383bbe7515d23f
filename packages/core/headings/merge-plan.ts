import { sameValue, update, type ChangeOf, type Versioned } from '../changes';
import type { DataField, MarcRecord } from '../marc';
import { keptForm, keyOfHeading, seeFromKey, seeFroms, type Heading } from './heading';
import { formOfAuthority, type MergeForm } from './merge-form';
import { mergeInRecord } from './merge-record';
import { asReplaced, earlierForm, withLostNumbers } from './replaced';
import { withTakenFields, type TakenFields } from './taken-fields';

/** A merge as a change set, with what a person should look at twice. */
export interface MergePlan {
  readonly changes: readonly (ChangeOf<'record', MarcRecord> | ChangeOf<'heading', Heading>)[];
  /** Those of records, and those of headings. */
  readonly records: readonly ChangeOf<'record', MarcRecord>[];
  readonly headings: readonly ChangeOf<'heading', Heading>[];
  readonly notes: readonly { record: number; message: string }[];
}

/** Two headings that cannot be merged, with the sentence why. */
export class NotMergeable extends Error {}

/** The form that records carry after a merge, and those that give way to it. */
export interface MergeForms {
  readonly kept: MergeForm;
  readonly lost: readonly MergeForm[];
}

/** The forms of a merge; throws `NotMergeable` when they do not go together. */
export function mergeForms(kept: MergeForm | null, lost: readonly (MergeForm | null)[]): MergeForms {
  if (!kept) throw new NotMergeable('The kept record has no heading that can be merged.');
  const sound = lost.map((l) => {
    if (!l) throw new NotMergeable('A lost record has no heading that can be merged.');
    if (l.type !== kept.type) throw new NotMergeable('The headings are of two kinds.');
    if (l.vocabulary !== kept.vocabulary)
      throw new NotMergeable(`The headings are of two vocabularies (${kept.vocabulary}, ${l.vocabulary}).`);
    return l;
  });
  return { kept, lost: sound };
}

/** A merge: the heading that is kept, and those that are lost into it. */
export interface Merging {
  readonly kept: Versioned<Heading, 'heading'>;
  readonly lost: readonly Versioned<Heading, 'heading'>[];
  /** The form that the kept heading gets, where it is another than it has: a 1XX field. */
  readonly form?: DataField;
  /** Further fields of the lost authority records that the kept one gets. */
  readonly taken?: readonly TakenFields[];
}

/** The kept authority record as it comes into the merge: with its new form, revised then (leader 05 `c`). */
const withNewForm = ({ kept: { value }, form }: Merging): MarcRecord => {
  if (!form) return value.marc;
  const { leader, fields } = value.marc;
  const own = keptForm(value);
  return {
    leader: leader.length > 5 ? `${leader.slice(0, 5)}c${leader.slice(6)}` : leader,
    fields: fields.some((f) => f === own) ? fields.map((f) => (f === own ? form : f)) : [...fields, form],
  };
};

/** The forms of a merge: the one that records carry afterwards, and those that give way to it. Throws `NotMergeable`. */
export function formsOfMerge(merging: Merging): MergeForms {
  const { kept, lost, form } = merging;
  if (form && form.tag !== keptForm(kept.value).tag)
    throw new NotMergeable('The new form is of another kind than the heading.');
  const gone = [...(form ? [kept] : []), ...lost];
  return mergeForms(
    formOfAuthority(withNewForm(merging)),
    gone.map((l) => formOfAuthority(l.value.marc)),
  );
}

/**
 * What a merge makes of the headings: the kept one gets the lost forms as see-froms (4XX), and each lost heading leads to the
 * kept one.
 */
export function mergedHeadings(merging: Merging): ChangeOf<'heading', Heading>[] {
  const { kept, lost, form, taken = [] } = merging;
  const base = withNewForm(merging);
  const marcs = lost.map((l) => l.value.marc);
  const traced = withSeeFroms(base, [...(form ? [kept.value.marc] : []), ...marcs]);
  const marc = withTakenFields(withLostNumbers(traced, marcs), marcs, taken);
  return [
    update('heading', kept, { ...kept.value, marc }),
    ...lost.map((l) => {
      const replaced = asReplaced(l.value.marc, base);
      return update('heading', l, { ...l.value, marc: replaced, mergedInto: kept.id });
    }),
  ].filter((c) => !sameValue(c.before, c.after));
}

/** What a merge makes of records: every one that carries a lost form carries the kept form; notes are what to look at twice. */
export function mergedRecords(
  forms: MergeForms,
  records: readonly Versioned<MarcRecord, 'record'>[],
): Pick<MergePlan, 'records' | 'notes'> {
  const notes: { record: number; message: string }[] = [];
  const changed: ChangeOf<'record', MarcRecord>[] = [];
  for (const record of records) {
    const next = mergeInRecord(record.value, forms.kept, forms.lost);
    for (const message of next.notes) notes.push({ record: record.id, message });
    if (next.record !== record.value) changed.push(update('record', record, next.record));
  }
  return { records: changed, notes };
}

/** A merge of headings of one kind and vocabulary, with all records that carry the lost forms, in one change set. */
export function mergePlan(
  kept: Versioned<Heading, 'heading'>,
  lost: readonly Versioned<Heading, 'heading'>[],
  records: readonly Versioned<MarcRecord, 'record'>[],
): MergePlan {
  const merging = { kept, lost };
  const merged = mergedRecords(formsOfMerge(merging), records);
  const headings = mergedHeadings(merging);
  return { changes: [...merged.records, ...headings], ...merged, headings };
}

/** The kept authority record with the lost ones' forms as see-froms, each once, and none that is its own. */
export function withSeeFroms(kept: MarcRecord, lost: readonly MarcRecord[]): MarcRecord {
  const asHeading = (marc: MarcRecord): Heading => ({ kind: 'personal', marc, mergedInto: null });
  const known = new Set([keyOfHeading(asHeading(kept)), ...seeFroms(asHeading(kept)).map(seeFromKey)]);
  const fields = [...kept.fields];
  for (const other of lost)
    for (const f of [keptForm(asHeading(other)), ...seeFroms(asHeading(other))]) {
      const key = seeFromKey(f);
      if (known.has(key)) continue;
      known.add(key);
      const tracing = { ...f, tag: `4${f.tag.slice(1)}` };
      fields.push(f.tag[0] === '1' ? earlierForm(tracing, other) : tracing);
    }
  return { ...kept, fields };
}
