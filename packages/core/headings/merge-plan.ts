import { creation, sameValue, update, type ChangeOf, type Id, type Versioned } from '../changes';
import type { MarcRecord } from '../marc';
import { keptForm, keyOfHeading, seeFromKey, seeFroms, type Heading } from './heading';
import { formOfAuthority, type MergeForm } from './merge-form';
import { mergeInRecord } from './merge-record';
import { asReplaced, earlierForm, withLostNumbers } from './replaced';

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

/** The forms of a merge; throws `NotMergeable` when they do not go together. */
export function mergeForms(
  kept: MergeForm | null,
  lost: readonly (MergeForm | null)[],
): { kept: MergeForm; lost: MergeForm[] } {
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

/**
 * Merges lost headings into a kept one: every record that carries a lost form carries the kept form, the kept heading
 * gets the lost forms as see-froms (4XX), and each lost heading leads to the kept one. Headings of one kind and vocabulary only.
 */
export function mergePlan(
  kept: Versioned<Heading, 'heading'>,
  lost: readonly Versioned<Heading, 'heading'>[],
  records: readonly Versioned<MarcRecord, 'record'>[],
): MergePlan {
  const forms = mergeForms(
    formOfAuthority(kept.value.marc),
    lost.map((l) => formOfAuthority(l.value.marc)),
  );
  const notes: { record: number; message: string }[] = [];
  const changed: ChangeOf<'record', MarcRecord>[] = [];
  for (const record of records) {
    const next = mergeInRecord(record.value, forms.kept, forms.lost);
    for (const message of next.notes) notes.push({ record: record.id, message });
    if (next.record !== record.value) changed.push(update('record', record, next.record));
  }
  const marcs = lost.map((l) => l.value.marc);
  const marc = withLostNumbers(withSeeFroms(kept.value.marc, marcs), marcs);
  const headings = [
    update('heading', kept, { ...kept.value, marc }),
    ...lost.map((l) => {
      const replaced = asReplaced(l.value.marc, kept.value.marc);
      return update('heading', l, { ...l.value, marc: replaced, mergedInto: kept.id });
    }),
  ].filter((c) => !sameValue(c.before, c.after));
  return { changes: [...changed, ...headings], records: changed, headings, notes };
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

/** Two headings that a person has said are two people. */
export interface Distinct {
  readonly a: Id<'heading'>;
  readonly b: Id<'heading'>;
}
/** The change that notes such a pair, the lower number first. */
export const distinctChange = (
  id: Id<'distinct'>,
  a: Id<'heading'>,
  b: Id<'heading'>,
): ChangeOf<'distinct', Distinct> => creation('distinct', id, { a: Math.min(a, b), b: Math.max(a, b) });
