import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { field, type DataField, type Field, type MarcRecord } from '../marc';
import {
  applyStep,
  applyTransaction,
  edited,
  invertStep,
  invertTransaction,
  isDataTag,
  LEADER,
  mapField,
  mapStep,
  mapTransaction,
  NO_HISTORY,
  redone,
  tracedFields,
  transactionBetween,
  undone,
  withOtherTag,
  type EditStep,
} from '.';

const word = fc.constantFrom('eel', 'osier', 'a/b', '', 'Weir :', '篭', 'é');
const subfieldOf = fc.record({ code: fc.constantFrom('a', 'b', 'c'), value: word });
const dataField = fc.record({
  tag: fc.constantFrom('245', '500', '650'),
  ind1: fc.constantFrom(' ', '1'),
  ind2: fc.constantFrom(' ', '0'),
  subfields: fc.array(subfieldOf, { minLength: 1, maxLength: 4 }),
});
const controlField = fc.record({ tag: fc.constantFrom('001', '008'), value: word });
const anyField: fc.Arbitrary<Field> = fc.oneof({ weight: 4, arbitrary: dataField }, controlField);
const recordOf: fc.Arbitrary<MarcRecord> = fc.record({
  leader: fc.constant('00000nam a2200000 i 4500'),
  fields: fc.array(anyField, { maxLength: 7 }),
});

/** Steps that are possible on a record, chosen by numbers. */
function possible(
  record: MarcRecord,
  [kind, a, b, c]: readonly number[],
  fields: readonly Field[],
): EditStep {
  const n = record.fields.length;
  const at = (a ?? 0) % (n + 1);
  const here = record.fields[at];
  const insertion: EditStep = {
    step: 'fields',
    at,
    removed: [],
    inserted: fields.slice(0, 1 + ((b ?? 0) % 2)),
  };
  if (!here) return insertion;
  switch ((kind ?? 0) % 8) {
    case 0:
      return insertion;
    case 1: {
      const removed = record.fields.slice(at, at + 1 + ((b ?? 0) % 3));
      return { step: 'fields', at, removed, inserted: fields.slice(0, (c ?? 0) % 3) };
    }
    case 2:
      return { step: 'move', from: at, to: (b ?? 0) % n };
  }
  if (!('subfields' in here)) {
    const from = (b ?? 0) % (here.value.length + 1);
    const removed = here.value.slice(from, from + ((c ?? 0) % 3));
    return { step: 'text', field: at, at: from, removed, inserted: 'xy'.slice(0, (c ?? 0) % 3) };
  }
  const cut = (b ?? 0) % (here.subfields.length + 1);
  switch ((kind ?? 0) % 8) {
    case 3:
      return {
        step: 'indicator',
        field: at,
        which: ((b ?? 0) % 2) + 1 === 1 ? 1 : 2,
        before: '',
        after: '9',
      };
    case 4:
      if (cut > 0 && cut < here.subfields.length)
        return { step: 'split', field: at, at: cut, second: { tag: '500', ind1: ' ', ind2: '4' } };
      break;
    case 5: {
      const next = record.fields[at + 1];
      if (next && 'subfields' in next) {
        const { subfields: _, ...second } = next;
        return { step: 'join', field: at, at: here.subfields.length, second };
      }
    }
  }
  const removed = here.subfields.slice(cut, cut + ((c ?? 0) % 3));
  return { step: 'subfields', field: at, at: cut, removed, inserted: [{ code: 'z', value: 'new' }] };
}

const choice = fc.tuple(fc.nat(64), fc.nat(64), fc.nat(64), fc.nat(64));
const setting = fc.tuple(recordOf, choice, choice, fc.array(anyField, { minLength: 3, maxLength: 3 }));

function stepOn(record: MarcRecord, by: readonly number[], fields: readonly Field[]): EditStep {
  const step = possible(record, by, fields);
  const here = step.step === 'indicator' ? record.fields[step.field] : undefined;
  if (step.step !== 'indicator' || !here || !('subfields' in here)) return step;
  return { ...step, before: step.which === 1 ? here.ind1 : here.ind2 };
}

test('a step taken back leaves the record as it was', () => {
  fc.assert(
    fc.property(setting, ([record, by, , fields]) => {
      const step = stepOn(record, by, fields);
      expect(applyStep(applyStep(record, step), invertStep(step))).toEqual(record);
    }),
    { numRuns: 800 },
  );
});

test('two steps give the same record in either order, or concern the same thing', () => {
  let [met, passed] = [0, 0];
  fc.assert(
    fc.property(setting, ([record, one, other, fields]) => {
      const [a, b] = [stepOn(record, one, fields), stepOn(record, other, [...fields].reverse())];
      const [aLater, bLater] = [mapStep(a, b, true), mapStep(b, a, false)];
      expect([a, b, aLater === null]).toEqual([a, b, bLater === null]);
      if (!aLater || !bLater) return void met++;
      passed++;
      expect(applyStep(applyStep(record, b), aLater)).toEqual(applyStep(applyStep(record, a), bLater));
    }),
    { numRuns: 4000 },
  );
  expect(passed).toBeGreaterThan(1500);
  expect(met).toBeGreaterThan(100);
});

test('a field that is still there is found where the step put it', () => {
  fc.assert(
    fc.property(setting, ([record, by, , fields]) => {
      const marked = {
        ...record,
        fields: record.fields.map((f, i) => ({ ...f, tag: `9${String(i).padStart(2, '0')}` })),
      };
      const step = stepOn(marked, by, fields);
      const after = applyStep(marked, step);
      marked.fields.forEach((f, i) => {
        const at = mapField(i, step);
        const found = after.fields.findIndex((g) => g.tag === f.tag);
        if (found >= 0) expect(at).toBe(found);
      });
    }),
    { numRuns: 800 },
  );
});

test('what makes one record of another is found, in whatever they differ', () => {
  fc.assert(
    fc.property(recordOf, recordOf, (before, after) => {
      const there = transactionBetween(before, after);
      expect(applyTransaction(before, there)).toEqual(after);
      expect(applyTransaction(after, invertTransaction(there))).toEqual(before);
    }),
    { numRuns: 500 },
  );
});

test('a corrected subfield is one step on that subfield', () => {
  const before = { leader: ' '.repeat(24), fields: [field('245', '10', 'a', 'The eels /', 'c', 'H. Fen.')] };
  const after = { ...before, fields: [field('245', '14', 'a', 'The eels /', 'c', 'Hob Fen.')] };
  expect(transactionBetween(before, after)).toEqual([
    { step: 'indicator', field: 0, which: 2, before: '0', after: '4' },
    {
      step: 'subfields',
      field: 0,
      at: 1,
      removed: [{ code: 'c', value: 'H. Fen.' }],
      inserted: [{ code: 'c', value: 'Hob Fen.' }],
    },
  ]);
});

test('transactions of several steps pass each other as single steps do', () => {
  let passed = 0;
  fc.assert(
    fc.property(setting, choice, choice, ([record, one, other, fields], more, last) => {
      const a1 = stepOn(record, one, fields);
      const a = [a1, stepOn(applyStep(record, a1), more, fields)];
      const b1 = stepOn(record, other, [...fields].reverse());
      const b = [b1, stepOn(applyStep(record, b1), last, [...fields].reverse())];
      const [aLater, bLater] = [mapTransaction(a, b, true), mapTransaction(b, a, false)];
      if (!aLater || !bLater) return;
      passed++;
      expect(applyTransaction(applyTransaction(record, b), aLater)).toEqual(
        applyTransaction(applyTransaction(record, a), bLater),
      );
    }),
    { numRuns: 2000 },
  );
  expect(passed).toBeGreaterThan(300);
});

test('a step that says what is not so is refused and changes nothing', () => {
  const record = { leader: ' '.repeat(24), fields: [field('245', '10', 'a', 'Eels')] };
  const wrong: EditStep[] = [
    { step: 'fields', at: 0, removed: [field('246', '  ', 'a', 'Eels')], inserted: [] },
    { step: 'fields', at: 2, removed: [], inserted: [field('500', '  ', 'a', 'x')] },
    { step: 'text', field: 0, at: 0, removed: '', inserted: 'x' },
    { step: 'indicator', field: 0, which: 1, before: '0', after: '1' },
    { step: 'split', field: 0, at: 1, second: { tag: '500', ind1: ' ', ind2: ' ' } },
    { step: 'join', field: 0, at: 1, second: { tag: '500', ind1: ' ', ind2: ' ' } },
    { step: 'move', from: 0, to: 1 },
    { step: 'text', field: LEADER, at: 30, removed: '', inserted: 'x' },
  ];
  for (const step of wrong) expect(() => applyStep(record, step)).toThrow(RangeError);
});

test('what is undone can be done again until something else is done', () => {
  const start = { record: { leader: ' '.repeat(24), fields: [] as Field[] }, history: NO_HISTORY };
  const add = (tag: string, at: number) => [
    { step: 'fields' as const, at, removed: [], inserted: [field(tag, '  ', 'a', tag)] },
  ];
  const two = edited(edited(start, add('245', 0)), add('500', 1));
  const one = undone(two)!;
  expect(one.record.fields.map((f) => f.tag)).toEqual(['245']);
  expect(redone(one)!.record).toEqual(two.record);
  const other = edited(one, add('520', 1));
  expect(redone(other)).toBeNull();
  expect(undone(undone(other)!)!.record).toEqual(start.record);
  expect(undone(start)).toBeNull();
});

describe('another tag', () => {
  const linked = (tag: string, link: string, text: string) => field(tag, '1 ', '6', link, 'a', text);
  const record: MarcRecord = {
    leader: '00000nam a2200000 i 4500',
    fields: [
      field('245', '10', 'a', 'Eels.'),
      linked('440', '880-02', 'Papers'),
      field('500', '  ', 'a', 'One.'),
      linked('880', '245-01', 'x'),
      linked('880', '440-02/$1', '叢書'),
    ],
  };
  const to = (at: number, tag: string) => {
    const there = record.fields[at] as DataField;
    const made = withOtherTag(record, at, { ...there, tag });
    return { ...made, after: applyTransaction(record, made.transaction) };
  };
  test('its partner leads to it by the new tag, and it stands where that tag goes', () => {
    const { after, field: at } = to(1, '500');
    expect(after.fields.map((f) => f.tag)).toEqual(['245', '500', '500', '880', '880']);
    expect(at).toBe(2);
    expect(after.fields[at]).toEqual(linked('500', '880-02', 'Papers'));
    expect(after.fields[4]).toEqual(linked('880', '500-02/$1', '叢書'));
    expect(after.fields[3]).toEqual(record.fields[3]);
  });
  test('taken back, the record is as it was', () => {
    for (const at of [0, 1, 2, 3, 4])
      for (const tag of ['130', '245', '500', '590', '999']) {
        const { transaction, after } = to(at, tag);
        expect(applyTransaction(after, invertTransaction(transaction))).toEqual(record);
      }
  });
  test('a control field is none', () =>
    expect(() =>
      withOtherTag({ ...record, fields: [{ tag: '001', value: 'x' }] }, 0, field('500', '  ', 'a', 'x')),
    ).toThrow(RangeError));
  test.each([
    ['010', true],
    ['999', true],
    ['008', false],
    ['24', false],
    ['2455', false],
    ['24a', false],
    ['', false],
  ])('%s', (tag, is) => expect(isDataTag(tag)).toBe(is));
  test('traced: the field goes on under its new tag', () => {
    const { transaction, after } = to(1, '490');
    expect(tracedFields(record, transaction)[1]).toEqual({
      before: record.fields[1],
      after: after.fields[1],
    });
  });
});

describe('fields followed through edits', () => {
  test('what was there comes first, each once, then what is new; nothing else', () =>
    fc.assert(
      fc.property(recordOf, recordOf, recordOf, (a, b, c) => {
        const traced = tracedFields(a, [...transactionBetween(a, b), ...transactionBetween(b, c)]);
        expect(traced.flatMap((t) => t.before ?? [])).toEqual(a.fields);
        const texts = (all: readonly Field[]) => all.map((f) => JSON.stringify(f)).sort();
        expect(texts(traced.flatMap((t) => t.after ?? []))).toEqual(texts(c.fields));
      }),
    ));
});
