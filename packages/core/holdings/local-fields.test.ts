import fc from 'fast-check';
import { DEFAULT_HOUSE } from '../house';
import {
  changeMany,
  editFaults,
  isLocalValue,
  LOCAL_FORMS,
  localFieldProblems,
  localOf,
  NO_LISTS,
  readLocal,
  readLocals,
  withLocal,
  type Copy,
  type Holding,
  type KeptLocalField,
  type LocalField,
  type PartEdit,
} from '.';

const field = (form: LocalField['form'], parts: Partial<LocalField> = {}): LocalField => ({
  ...{ name: 'Given by', form, types: [] },
  choices: form === 'choice' ? ['Rebound', 'Publisher’s'] : [],
  ...parts,
});
const BOOK: Copy = {
  ...{ holding: 1, barcode: 'B1', number: 1, type: 'BK', price: 1250, fund: '', supplier: '' },
  ...{ acquired: '', condition: '', note: '', lastSeen: '' },
  status: 'available',
};

test.each<[LocalField['form'], string, string | RegExp]>([
  ['text', '  Friends  of the\tInstitute ', 'Friends of the Institute'],
  ['text', 'x'.repeat(50), 'x'.repeat(50)],
  ['text', 'x'.repeat(51), /at most 50 characters/],
  ['text', 'a\u0007b', /control characters/],
  ['text', '<script>', '<script>'],
  ['text', ' ', ''],
  ['number', '007', '7'],
  ['number', '12.50', '12.5'],
  ['number', '12,5', '12.5'],
  ['number', '-0.0', '0'],
  ['number', '-3', '-3'],
  ['number', '+3', '3'],
  ['number', '1,000', /is a number/],
  ['number', '1e9', /is a number/],
  ['number', 'twelve', /is a number/],
  ['date', '2026-02-28', '2026-02-28'],
  ['date', '2026-02-30', /is a day/],
  ['date', '28.2.2026', /is a day/],
  ['date', '2026-13-01', /is a day/],
  ['choice', 'REBOUND', 'Rebound'],
  ['choice', 'Sewn', /is one of: Rebound, Publisher’s/],
  ['link', 'https://wickmere.example/a?b=c', 'https://wickmere.example/a?b=c'],
  ['link', 'javascript:alert(1)', /begins with https/],
  ['link', 'https://', /begins with https/],
  ['link', 'ftp://wickmere.example', /begins with https/],
])('into a field of %s “%s” is read as %s', (form, typed, as) => {
  const read = readLocal(field(form), typed);
  if (typeof as === 'string') expect(read).toEqual({ value: as });
  else expect(read).toEqual({ problem: expect.stringMatching(as) as string });
});

test('what was read is read again as the same, and is what the copy then has; taken away, the copy is as before', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...LOCAL_FORMS),
      fc.oneof(
        fc.string({ maxLength: 60 }),
        fc.constantFrom('rebound', '12,50', '2026-01-31', 'http://x.example'),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }).map(String),
      ),
      fc.uniqueArray(fc.integer({ min: 1, max: 5 })),
      (form, typed, others) => {
        const read = readLocal(field(form), typed);
        if (!isLocalValue(read)) return;
        expect(readLocal(field(form), read.value)).toEqual(read);
        const before = others.reduce((c, n) => withLocal(c, n, `value ${n}`), BOOK);
        const after = withLocal(before, 9, read.value);
        expect(localOf(after, 9)).toBe(read.value);
        expect(after.local?.map((l) => l.field) ?? []).toEqual(
          [...others, ...(read.value ? [9] : [])].toSorted((a, b) => a - b),
        );
        expect(withLocal(after, 9, '')).toEqual(before);
      },
    ),
  ));

const types = [
  { code: 'BK', name: 'Book', price: null },
  { code: 'KT', name: 'Kit', price: null },
];
const twelve = Array.from({ length: 12 }, (_, i) => field('text', { name: `Field ${i}`, types: ['KT'] }));
test.each<[string, LocalField, LocalField[], string[]]>([
  ['sound', field('choice'), [], []],
  ['without a name', field('text', { name: ' ' }), [], ['name']],
  ['of a name that is taken', field('text'), [field('date', { name: 'GIVEN BY' })], ['name']],
  ['a choice of one', field('choice', { choices: ['Rebound', ' '] }), [], ['choices']],
  ['a choice twice', field('choice', { choices: ['Rebound', 'rebound'] }), [], ['choices']],
  ['choices where none are', field('date', { choices: ['a', 'b'] }), [], ['choices']],
  ['for a type that is not there', field('text', { types: ['XX'] }), [], ['types']],
  ['the thirteenth of a type', field('text'), twelve, ['types']],
  ['the thirteenth of all, for another type', field('text', { types: ['BK'] }), twelve, []],
])('a local field %s', (_, made, others, at) =>
  expect(localFieldProblems(made, others, types).map((p) => p.field)).toEqual(at),
);

const FIELDS: readonly KeptLocalField[] = [
  { id: 3, value: field('text') },
  { id: 4, value: field('number', { name: 'Pieces', types: ['KT'] }) },
];
test('what is typed into the fields of a copy is told at its place; what stays is not looked at again', () => {
  const was = { local: [{ field: 4, value: 'twelve' }] };
  const typed = (field: number, value: string) => readLocals([{ field, value }], 'BK', FIELDS, was);
  expect(typed(3, ' A member ')).toEqual({ values: [{ field: 3, value: 'A member' }], problems: [] });
  expect(typed(4, 'twelve').problems).toEqual([]);
  expect(typed(4, '').problems).toEqual([]);
  expect(typed(4, '12').problems).toEqual([
    { field: 'local[0].value', message: '“Pieces” is not a field of copies of type BK.' },
  ]);
  expect(typed(8, 'x').problems[0]!.message).toMatch(/no longer there/);
});

const edit = (field: number, how: PartEdit['how'], value = '', find = ''): PartEdit => ({
  ...{ part: 'local', field },
  ...{ how, value, find },
});
const SHELF: Holding = {
  ...{ record: 1, branch: 'MR', location: 'OPEN', prefix: '', class: '746.4', item: 'HOL', suffix: '' },
  ...{ scheme: 'dewey', note: '' },
};
const changed = (copy: Copy, ...edits: PartEdit[]) =>
  changeMany(
    {
      record: { leader: '', fields: [] },
      holdings: [{ id: 1, version: 1, value: SHELF }],
      copies: [{ id: 7, version: 1, value: copy }],
      chosen: new Set([7]),
    },
    edits,
    { house: DEFAULT_HOUSE, lists: NO_LISTS, fields: FIELDS, nextHolding: () => 90 },
  ).rows[0];
test('in many copies local fields are set, cleared, added to and replaced in', () => {
  const given = withLocal(BOOK, 3, 'A member');
  expect(changed(BOOK, edit(3, 'set', 'Estate'))?.after.local).toEqual([{ field: 3, value: 'Estate' }]);
  expect(changed(given, edit(3, 'add', '2019'))?.after.local?.[0]?.value).toBe('A member; 2019');
  expect(changed(given, edit(3, 'replace', 'reader', 'member'))?.after.local?.[0]?.value).toBe('A reader');
  expect(changed(given, edit(3, 'clear'))?.after).toEqual(BOOK);
  expect(changed(given, edit(3, 'set', 'A member'))).toBeUndefined();
  expect(changed(given, edit(3, 'add', 'x'.repeat(45)))).toMatchObject({
    problem: expect.stringContaining('at most 50') as string,
    after: given,
  });
  expect(changed(BOOK, edit(4, 'set', '12'))?.problem).toMatch(/not a field of copies of type BK/);
  expect(changed({ ...BOOK, type: 'KT' }, edit(4, 'set', '012'))?.after.local).toEqual([
    { field: 4, value: '12' },
  ]);
});
test.each<[PartEdit, string]>([
  [edit(99, 'set', 'x'), 'edits[0].field'],
  [edit(3, 'set', ' '), 'edits[0].value'],
  [edit(4, 'set', 'many'), 'edits[0].value'],
  [edit(4, 'add', '1'), 'edits[0].how'],
  [edit(3, 'replace', 'x'), 'edits[0].find'],
])('a change to a local field that makes no sense is told at its part: %j', (wrong, at) =>
  expect(editFaults([wrong], NO_LISTS, DEFAULT_HOUSE, FIELDS).map((f) => f.field)).toEqual([at]),
);
test('two local fields can be set at once, one of them not twice', () => {
  const faults = (...edits: PartEdit[]) => editFaults(edits, NO_LISTS, DEFAULT_HOUSE, FIELDS).length;
  expect(faults(edit(3, 'set', 'x'), edit(4, 'set', '1'))).toBe(0);
  expect(faults(edit(3, 'set', 'x'), edit(3, 'set', 'y'))).toBe(1);
});
