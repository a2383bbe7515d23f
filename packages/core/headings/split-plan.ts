import { creation, sameValue, update, type ChangeOf, type Id, type Versioned } from '../changes';
import type { DataField, MarcRecord } from '../marc';
import { distinctChange, type Distinct } from './distinct';
import { keptForm, keyOfHeading, type Heading } from './heading';
import { formOfAuthority } from './merge-form';
import { mergeForms } from './merge-plan';
import { mergeInRecord } from './merge-record';
import { vocabularyFields, vocabularyOfAuthority } from './vocabulary';

/** A heading that mixes two: which of its records go, and to what. */
export interface Splitting {
  readonly from: Versioned<Heading, 'heading'>;
  /** The heading that they go to: one that is there, or the form of one that is made with a number. */
  readonly to: Versioned<Heading, 'heading'> | { readonly id: Id<'heading'>; readonly form: DataField };
  readonly records: readonly Versioned<MarcRecord, 'record'>[];
  /** Whether no record stays with the first. */
  readonly isEmptied: boolean;
  /** Number of the note that the two are different. */
  readonly note: Id<'distinct'>;
}

/** A split as a change set. */
export interface SplitPlan {
  readonly records: readonly ChangeOf<'record', MarcRecord>[];
  readonly changes: readonly (
    ChangeOf<'record', MarcRecord> | ChangeOf<'heading', Heading> | ChangeOf<'distinct', Distinct>
  )[];
  readonly notes: readonly { record: number; message: string }[];
}

/**
 * Splits a heading: the chosen records carry the other form, and that the two are different is noted. A heading that keeps no record is
 * marked as split (MARC 21 Authority, leader 05 `s`). Throws `NotMergeable` when the two do not go together.
 */
export function splitPlan({ from, to, records, isEmptied, note }: Splitting): SplitPlan {
  const target: Heading = 'form' in to ? made(from.value, to.form) : to.value;
  const forms = mergeForms(formOfAuthority(target.marc), [formOfAuthority(from.value.marc)]);
  const notes: { record: number; message: string }[] = [];
  const changed: ChangeOf<'record', MarcRecord>[] = [];
  for (const record of records) {
    const next = mergeInRecord(record.value, forms.kept, forms.lost);
    for (const message of next.notes) notes.push({ record: record.id, message });
    if (next.record !== record.value) changed.push(update('record', record, next.record));
  }
  const { leader } = from.value.marc;
  const left: Heading =
    isEmptied && leader.length > 5
      ? { ...from.value, marc: { ...from.value.marc, leader: `${leader.slice(0, 5)}s${leader.slice(6)}` } }
      : from.value;
  const headings = [
    ...('form' in to ? [creation('heading', to.id, target)] : []),
    ...(sameValue(left, from.value) ? [] : [update('heading', from, left)]),
  ];
  const apart = distinctChange(note, from.id, to.id, { reason: 'Split' });
  return { records: changed, changes: [...changed, ...headings, apart], notes };
}

function made(from: Heading, form: DataField): Heading {
  const fields = [...vocabularyFields(vocabularyOfAuthority(from.marc), keptForm(from).tag), form];
  return { kind: from.kind, marc: { leader: '00000nz  a2200000n  4500', fields }, mergedInto: null };
}

/** Whether a form is the one that a heading has already. */
export const isItsForm = (heading: Heading, form: DataField): boolean =>
  keyOfHeading(heading) === keyOfHeading(made(heading, form));
