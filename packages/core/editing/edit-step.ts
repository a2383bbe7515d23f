import { isControl, isData, type Field, type MarcRecord, type Subfield } from '../marc';

/** The field number that stands for the leader. */
export const LEADER = -1;

/** Tag and indicators of a field without its content. */
export interface FieldHead {
  readonly tag: string;
  readonly ind1: string;
  readonly ind2: string;
}

/**
 * One step of editing a record, as a value that says both what it takes away and what it puts in its place, so that it can be
 * inverted without the record. Field numbers count from 0 in the record as it is when the step is applied; -1 is the leader.
 */
export type EditStep =
  /** Fields exchanged for others at a place: an insertion, a deletion, a replacement. */
  | {
      readonly step: 'fields';
      readonly at: number;
      readonly removed: readonly Field[];
      readonly inserted: readonly Field[];
    }
  /** A field that moves: `to` is its number afterwards. */
  | { readonly step: 'move'; readonly from: number; readonly to: number }
  /** Subfields of a data field exchanged for others at a place. */
  | {
      readonly step: 'subfields';
      readonly field: number;
      readonly at: number;
      readonly removed: readonly Subfield[];
      readonly inserted: readonly Subfield[];
    }
  | {
      readonly step: 'indicator';
      readonly field: number;
      readonly which: 1 | 2;
      readonly before: string;
      readonly after: string;
    }
  /** Characters of the leader or of a control field exchanged at a position. */
  | {
      readonly step: 'text';
      readonly field: number;
      readonly at: number;
      readonly removed: string;
      readonly inserted: string;
    }
  /** A data field cut before its subfield `at`; what follows becomes a field of its own, headed `second`. */
  | { readonly step: 'split'; readonly field: number; readonly at: number; readonly second: FieldHead }
  /** The data field behind `field` joined to it, whose subfields then begin at `at`; `second` is what it was headed. */
  | { readonly step: 'join'; readonly field: number; readonly at: number; readonly second: FieldHead };

/** A record edited by a step. Throws a RangeError when the step says of the record what is not so. */
export function applyStep(record: MarcRecord, step: EditStep): MarcRecord {
  switch (step.step) {
    case 'fields':
      return withFields(record, step.at, step.removed, step.inserted);
    case 'move':
      return moved(record, step.from, step.to);
    case 'text':
      return withText(record, step);
    case 'split':
      return split(record, step);
    case 'join':
      return joined(record, step);
    case 'subfields': {
      const there = dataAt(record, step.field);
      const subfields = spliced(there.subfields, step.at, step.removed, step.inserted);
      return withField(record, step.field, { ...there, subfields });
    }
    case 'indicator': {
      const there = dataAt(record, step.field);
      const name = step.which === 1 ? 'ind1' : 'ind2';
      expect(there[name] === step.before);
      return withField(record, step.field, { ...there, [name]: step.after });
    }
  }
}

/** The step that takes another one back. */
export function invertStep(step: EditStep): EditStep {
  switch (step.step) {
    case 'fields':
      return { ...step, removed: step.inserted, inserted: step.removed };
    case 'subfields':
      return { ...step, removed: step.inserted, inserted: step.removed };
    case 'text':
      return { ...step, removed: step.inserted, inserted: step.removed };
    case 'move':
      return { ...step, from: step.to, to: step.from };
    case 'indicator':
      return { ...step, before: step.after, after: step.before };
    case 'split':
      return { ...step, step: 'join' };
    case 'join':
      return { ...step, step: 'split' };
  }
}

function expect(isSo: boolean): asserts isSo {
  if (!isSo) throw new RangeError('The record is not as the edit takes it for.');
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A list with some of it exchanged; what is to be removed must stand there. */
function spliced<T>(list: readonly T[], at: number, removed: readonly T[], inserted: readonly T[]): T[] {
  expect(at >= 0 && at <= list.length && same(list.slice(at, at + removed.length), removed));
  return [...list.slice(0, at), ...inserted, ...list.slice(at + removed.length)];
}

const withFields = (
  record: MarcRecord,
  at: number,
  removed: readonly Field[],
  inserted: readonly Field[],
) => ({
  ...record,
  fields: spliced(record.fields, at, removed, inserted),
});

const withField = (record: MarcRecord, at: number, field: Field): MarcRecord => ({
  ...record,
  fields: record.fields.map((f, i) => (i === at ? field : f)),
});

function dataAt(record: MarcRecord, at: number) {
  const there = record.fields[at];
  expect(there !== undefined && isData(there));
  return there;
}

function moved(record: MarcRecord, from: number, to: number): MarcRecord {
  const { length } = record.fields;
  expect(from >= 0 && from < length && to >= 0 && to < length);
  const fields = [...record.fields];
  fields.splice(to, 0, ...fields.splice(from, 1));
  return { ...record, fields };
}

type TextStep = EditStep & { readonly step: 'text' };

function withText(record: MarcRecord, { field, at, removed, inserted }: TextStep): MarcRecord {
  const exchanged = (text: string): string => {
    expect(at >= 0 && at <= text.length && text.slice(at, at + removed.length) === removed);
    return text.slice(0, at) + inserted + text.slice(at + removed.length);
  };
  if (field === LEADER) return { ...record, leader: exchanged(record.leader) };
  const there = record.fields[field];
  expect(there !== undefined && isControl(there));
  return withField(record, field, { ...there, value: exchanged(there.value) });
}

function split(record: MarcRecord, { field, at, second }: EditStep & { readonly step: 'split' }): MarcRecord {
  const there = dataAt(record, field);
  expect(at > 0 && at < there.subfields.length);
  return withFields(
    record,
    field,
    [there],
    [
      { ...there, subfields: there.subfields.slice(0, at) },
      { ...second, subfields: there.subfields.slice(at) },
    ],
  );
}

function joined(record: MarcRecord, { field, at, second }: EditStep & { readonly step: 'join' }): MarcRecord {
  const [one, other] = [dataAt(record, field), dataAt(record, field + 1)];
  const { subfields, ...head } = other;
  expect(one.subfields.length === at && subfields.length > 0 && at > 0);
  expect(head.tag === second.tag && head.ind1 === second.ind1 && head.ind2 === second.ind2);
  return withFields(record, field, [one, other], [{ ...one, subfields: [...one.subfields, ...subfields] }]);
}
