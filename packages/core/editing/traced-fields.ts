import { isControl, isData, type Field, type MarcRecord } from '../marc';
import { applyStep, type EditStep } from './edit-step';
import type { EditTransaction } from './transaction';

/** A field before and after an edit: null where it was not there yet, or is gone. */
export interface TracedField {
  readonly before: Field | null;
  readonly after: Field | null;
}

/**
 * Each field of a record followed through a transaction: those that were there in their old order, then the new ones. A field that
 * is exchanged for another of its tag goes on in that one, and so does one exchanged for a field of another tag with the same text in
 * a subfield. One that stands in the end as it was is itself, whatever was done in between.
 * Throws a RangeError when a step says of the record what is not so.
 */
export function tracedFields(record: MarcRecord, transaction: EditTransaction): TracedField[] {
  let now = record;
  // By place: the number of the field as it was, null for a new one.
  let origins: readonly (number | null)[] = record.fields.map((_, i) => i);
  for (const step of transaction) {
    now = applyStep(now, step);
    origins = originsAfter(origins, step);
  }
  const places = new Map(origins.map((origin, at) => [origin, at]));
  return asTheyWere([
    ...record.fields.map((before, i) => ({ before, after: now.fields[places.get(i) ?? -1] ?? null })),
    ...origins.flatMap((origin, at) => (origin === null ? { before: null, after: now.fields[at]! } : [])),
  ]);
}

/** What was taken away and put back, or changed there and back in another place, is as it was. */
function asTheyWere(traced: readonly TracedField[]): TracedField[] {
  const text = (f: Field | null) => f && JSON.stringify(f);
  const was = traced.map((t) => text(t.before));
  const is = traced.map((t) => text(t.after));
  const after = traced.map((t) => t.after);
  // By its text: the places of what is not as it was there.
  const elsewhere = new Map<string, number[]>();
  is.forEach((now, i) => {
    if (now !== null && now !== was[i]) elsewhere.set(now, [...(elsewhere.get(now) ?? []), i]);
  });
  traced.forEach(({ before }, i) => {
    const old = was[i] ?? null;
    if (old === null || is[i] === old) return;
    const at = elsewhere.get(old)?.find((k) => is[k] === old && was[k] !== old);
    if (at === undefined) return;
    const [moved, itsText] = [after[i] ?? null, is[i] ?? null];
    [after[at], is[at]] = [moved, itsText];
    [after[i], is[i]] = [before, old];
    if (itsText !== null) elsewhere.set(itsText, [...(elsewhere.get(itsText) ?? []), at]);
  });
  return traced
    .map(({ before }, i) => ({ before, after: after[i] ?? null }))
    .filter((t) => t.before ?? t.after);
}

function originsAfter(origins: readonly (number | null)[], step: EditStep): readonly (number | null)[] {
  const next = [...origins];
  if (step.step === 'fields') {
    const taken = heirs(step.removed, step.inserted);
    next.splice(
      step.at,
      step.removed.length,
      ...taken.map((of) => (of === null ? null : (origins[step.at + of] ?? null))),
    );
  } else if (step.step === 'move') next.splice(step.to, 0, ...next.splice(step.from, 1));
  else if (step.step === 'split') next.splice(step.field + 1, 0, null);
  else if (step.step === 'join') next.splice(step.field + 1, 1);
  return next;
}

/** For each field that is put in: which of those taken out it goes on, null for none. */
function heirs(removed: readonly Field[], inserted: readonly Field[]): (number | null)[] {
  const left = new Set(removed.keys());
  const of = inserted.map(({ tag }) => {
    const heir = [...left].find((i) => removed[i]!.tag === tag) ?? null;
    if (heir !== null) left.delete(heir);
    return heir;
  });
  return inserted.map((f, i) => {
    const heir = of[i] ?? [...left].find((r) => isOneText(removed[r]!, f)) ?? null;
    if (heir !== null) left.delete(heir);
    return heir;
  });
}

/** Fields of different tags are one when some of their text is. */
const isOneText = (a: Field, b: Field): boolean =>
  isData(a) && isData(b)
    ? a.subfields.some((s) => b.subfields.some((o) => o.value === s.value && s.value !== ''))
    : isControl(a) && isControl(b) && a.value === b.value;
