import { diffArrays } from 'diff';
import {
  applyEdits,
  isControl,
  isData,
  type Field,
  type MarcRecord,
  type RecordEdit,
  type Subfield,
} from '../marc';
import { applyStep, invertStep, LEADER, type EditStep } from './edit-step';
import { mapField } from './map-place';
import { mapStep } from './map-step';

/** Steps that belong together, each for the record as the one before it left it. */
export type EditTransaction = readonly EditStep[];

/** A record edited by all steps of a transaction. Throws a RangeError when one says of the record what is not so. */
export const applyTransaction = (record: MarcRecord, transaction: EditTransaction): MarcRecord =>
  transaction.reduce(applyStep, record);

/** The transaction that takes another one back. */
export const invertTransaction = (transaction: EditTransaction): EditTransaction =>
  transaction.map(invertStep).reverse();

/** Where a field stands after a transaction; null when it is gone. */
export const mapFieldOver = (at: number, over: EditTransaction): number | null =>
  over.reduce<number | null>((place, step) => (place === null ? null : mapField(place, step)), at);

/** A transaction made for a record, as it is after another on the same record; null where they concern the same thing. */
export function mapTransaction(
  transaction: EditTransaction,
  over: EditTransaction,
  isBefore = false,
): EditTransaction | null {
  const mapped: EditStep[] = [];
  let others: EditTransaction = over;
  for (const step of transaction) {
    let here: EditStep | null = step;
    const rest: EditStep[] = [];
    for (const other of others) {
      // Each of the others is carried past the step, so that it meets the next one as that one was made.
      const after: EditStep | null = here && mapStep(other, here, !isBefore);
      here = here && mapStep(here, other, isBefore);
      if (!here || !after) return null;
      rest.push(after);
    }
    if (!here) return null;
    mapped.push(here);
    others = rest;
  }
  return mapped;
}

/** The steps that make one record of another: as small as the fields, their indicators and subfields let them be. */
export function transactionBetween(before: MarcRecord, after: MarcRecord): EditTransaction {
  const steps: EditStep[] = [];
  if (before.leader !== after.leader) steps.push(textStep(LEADER, before.leader, after.leader));
  let at = 0;
  let [was, is] = [0, 0];
  let removed: Field[] = [];
  let inserted: Field[] = [];
  const settle = () => {
    steps.push(...exchange(at, removed, inserted));
    at += inserted.length;
    [removed, inserted] = [[], []];
  };
  const text = (f: Field) => JSON.stringify(f);
  for (const part of diffArrays(before.fields.map(text), after.fields.map(text))) {
    const { length } = part.value;
    if (part.removed) removed.push(...before.fields.slice(was, (was += length)));
    else if (part.added) inserted.push(...after.fields.slice(is, (is += length)));
    else {
      settle();
      [was, is, at] = [was + length, is + length, at + length];
    }
  }
  settle();
  return steps;
}

/** The edits that a fix proposes, as a transaction. */
export const transactionOfEdits = (record: MarcRecord, edits: readonly RecordEdit[]): EditTransaction =>
  transactionBetween(record, applyEdits(record, edits));

/** Fields for fields: one by one where they are of the same tags, else as a whole. */
function exchange(at: number, removed: readonly Field[], inserted: readonly Field[]): EditStep[] {
  if (removed.length === 0 && inserted.length === 0) return [];
  const alike = removed.length === inserted.length && removed.every((f, i) => f.tag === inserted[i]!.tag);
  if (!alike) return [{ step: 'fields', at, removed, inserted }];
  return removed.flatMap((f, i) => fieldSteps(at + i, f, inserted[i]!));
}

/** The steps that make one field of another of the same tag. */
function fieldSteps(field: number, before: Field, after: Field): EditStep[] {
  if (isControl(before) && isControl(after)) return [textStep(field, before.value, after.value)];
  if (!isData(before) || !isData(after))
    return [{ step: 'fields', at: field, removed: [before], inserted: [after] }];
  const steps: EditStep[] = [];
  for (const which of [1, 2] as const) {
    const [was, is] = which === 1 ? [before.ind1, after.ind1] : [before.ind2, after.ind2];
    if (was !== is) steps.push({ step: 'indicator', field, which, before: was, after: is });
  }
  const { at, removed, inserted } = changedStretch(before.subfields, after.subfields);
  if (removed.length || inserted.length) steps.push({ step: 'subfields', field, at, removed, inserted });
  return steps;
}

function textStep(field: number, before: string, after: string): EditStep {
  const { at, removed, inserted } = changedStretch([...before], [...after]);
  const start = [...before].slice(0, at).join('').length;
  return { step: 'text', field, at: start, removed: removed.join(''), inserted: inserted.join('') };
}

/** The one stretch in which two lists differ. */
function changedStretch<T extends Subfield | string>(before: readonly T[], after: readonly T[]) {
  const same = (a: T | undefined, b: T | undefined) => JSON.stringify(a) === JSON.stringify(b);
  const shorter = Math.min(before.length, after.length);
  let at = 0;
  while (at < shorter && same(before[at], after[at])) at++;
  let tail = 0;
  while (tail < shorter - at && same(before[before.length - 1 - tail], after[after.length - 1 - tail]))
    tail++;
  return {
    at,
    removed: before.slice(at, before.length - tail),
    inserted: after.slice(at, after.length - tail),
  };
}
