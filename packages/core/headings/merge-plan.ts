import { creation, sameValue, update, type Change, type ChangeSet, type Versioned } from '../changes';
import { isData, type DataField, type Field, type MarcRecord, type Subfield } from '../marc';
import { keptForm, keyOfHeading, seeFroms, type Heading } from './heading';
import { endTrimmed, headingIn, headingKey } from './normal-form';

/** A merge as a change set, with what a person should look at twice. */
export interface MergePlan {
  readonly changes: ChangeSet;
  readonly notes: readonly { record: number; message: string }[];
}

/**
 * Merges lost headings into a kept one: every record that carries a lost form carries the kept form, the kept heading
 * gets the lost forms as see-froms (4XX), and each lost heading leads to the kept one. Headings of one kind only.
 */
export function mergePlan(
  kept: Versioned<Heading>,
  lost: readonly Versioned<Heading>[],
  records: readonly Versioned<MarcRecord>[],
): MergePlan {
  const lostKeys = new Set(lost.map((l) => keyOfHeading(l.value)));
  const form = keptForm(kept.value);
  const notes: { record: number; message: string }[] = [];
  const changes: Change[] = [];
  for (const record of records) {
    const next = withKeptForm(record.value, lostKeys, kept.value.kind, form);
    if (next.record === record.value) continue;
    if (next.dropped)
      notes.push({ record: record.id, message: 'The name was there in both forms; the second field goes.' });
    changes.push(update('record', record, next.record));
  }
  changes.push(
    update(
      'heading',
      kept,
      withSeeFroms(
        kept.value,
        lost.map((l) => l.value),
      ),
    ),
  );
  for (const l of lost) changes.push(update<Heading>('heading', l, { ...l.value, mergedInto: kept.id }));
  return { changes: changes.filter((c) => !sameValue(c.before, c.after)), notes };
}

function withKeptForm(
  record: MarcRecord,
  lostKeys: ReadonlySet<string>,
  kind: Heading['kind'],
  form: DataField,
): { record: MarcRecord; dropped: boolean } {
  let changed = false;
  const fields = record.fields.map((f): Field => {
    const use = isData(f) ? headingIn(f) : null;
    if (!use || !isData(f) || use.kind !== kind || !lostKeys.has(use.key)) return f;
    changed = true;
    return replaceName(f, use.subfields.length, form);
  });
  if (!changed) return { record, dropped: false };
  const texts = new Set<string>();
  const unique = fields.filter((f, i) => {
    const text = JSON.stringify(f);
    const again = f !== record.fields[i] && texts.has(text);
    texts.add(text);
    return !again;
  });
  return { record: { ...record, fields: unique }, dropped: unique.length < fields.length };
}

/** The first `count` name subfields exchanged for the kept form's; what follows the name keeps its punctuation. */
function replaceName(f: DataField, count: number, form: DataField): DataField {
  const name = form.subfields.filter((s) => /[a-z]/.test(s.code));
  let replaced = 0;
  const after: Subfield[] = [];
  const before: Subfield[] = [];
  let last = '';
  for (const s of f.subfields) {
    if (replaced < count && /[a-z]/.test(s.code) && s.code !== 'e') {
      replaced++;
      last = s.value;
    } else (replaced === 0 ? before : after).push(s);
  }
  // The full stop of an initial is the name's own.
  const end = endTrimmed(last) === last.trim() ? '' : last.trim().slice(-1);
  const placed = name.map((s, i) => {
    if (i < name.length - 1 || end === '' || /[-,.]$/.test(s.value)) return s;
    return { ...s, value: s.value + end };
  });
  return {
    ...f,
    ind1: /^[1678]/.test(f.tag) && form.tag !== '150' && form.tag !== '151' ? form.ind1 : f.ind1,
    subfields: [...before, ...placed, ...after],
  };
}

function withSeeFroms(kept: Heading, lost: readonly Heading[]): Heading {
  const known = new Set([keyOfHeading(kept), ...seeFroms(kept).map((f) => headingKey(f.subfields))]);
  const fields = [...kept.marc.fields];
  for (const other of lost)
    for (const f of [keptForm(other), ...seeFroms(other)]) {
      const key = headingKey(f.subfields);
      if (known.has(key)) continue;
      known.add(key);
      fields.push({ ...f, tag: `4${f.tag.slice(1)}` });
    }
  return { ...kept, marc: { ...kept.marc, fields } };
}

/** Two headings that a person has said are two people. */
export interface Distinct {
  readonly a: number;
  readonly b: number;
}
export const distinctChange = (id: number, a: number, b: number): Change<Distinct> =>
  creation('distinct', id, { a: Math.min(a, b), b: Math.max(a, b) });
