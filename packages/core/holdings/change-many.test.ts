import fc from 'fast-check';
import { DEFAULT_HOUSE } from '../house';
import { field, type MarcRecord } from '../marc';
import {
  changeMany,
  editFaults,
  EDITED_PARTS,
  waysOf,
  type CodeLists,
  type Copy,
  type PartEdit,
  type Holding,
} from '.';

const lists: CodeLists = {
  branches: [
    { code: 'MR', name: 'Millrace' },
    { code: 'SH', name: 'Shelwick' },
  ],
  locations: [
    { code: 'OPEN', name: 'Open shelves', branch: 'MR' },
    { code: 'STO', name: 'Store', branch: 'MR' },
    { code: 'FLOOR', name: 'Floor', branch: 'SH' },
  ],
  types: [{ code: 'BK', name: 'Book', price: 1000 }],
  funds: [{ code: 'GEN', name: 'General' }],
  suppliers: [{ code: 'WTH', name: 'Withy' }],
};
const house = DEFAULT_HOUSE;
const record: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    field('082', '04', 'a', '746.41/2'),
    field('100', '1 ', 'a', 'Holt, Ada'),
    field('245', '10', 'a', 'Eels'),
  ],
};
const SHELF: Holding = {
  ...{ record: 1, branch: 'MR', location: 'OPEN', prefix: '', class: '746.4', item: 'HOL', suffix: '' },
  scheme: 'dewey',
  note: 'Signed.',
};
const BOOK: Copy = {
  ...{ holding: 1, barcode: 'B1', number: 1, type: 'BK', price: 1250, fund: '', supplier: 'WTH' },
  ...{ acquired: '', condition: '', note: '', lastSeen: '' },
  status: 'available',
};
const holding = (id: number, parts: Partial<Holding> = {}) => ({
  id,
  version: 1,
  value: { ...SHELF, ...parts },
});
const copy = (id: number, of: number, parts: Partial<Copy> = {}) => ({
  ...{ id, version: 3 },
  value: { ...BOOK, holding: of, barcode: `B${id}`, number: id, ...parts },
});
const edit = (part: PartEdit['part'], how: PartEdit['how'], value = '', find = ''): PartEdit => ({
  part,
  how,
  value,
  find,
});
function changed(
  holdings: ReturnType<typeof holding>[],
  copies: ReturnType<typeof copy>[],
  chosen: number[],
  ...edits: PartEdit[]
) {
  let next = 90;
  return changeMany({ record, holdings, copies, chosen: new Set(chosen) }, edits, {
    ...{ house, lists, fields: [] },
    nextHolding: () => next++,
  });
}
const told = ({ changes }: ReturnType<typeof changed>) =>
  changes.map(
    (c) => `${c.kind} ${c.id} ${c.before === null ? 'made' : c.after === null ? 'gone' : 'changed'}`,
  );

test('a price is set with its currency, which goes with it', () => {
  const copies = [copy(1, 1), copy(2, 1, { price: 900, currency: 'EUR' })];
  const made = (value: string | null) =>
    changed(
      [holding(1)],
      copies,
      [1, 2],
      value === null ? edit('price', 'clear') : edit('price', 'set', value),
    ).rows.map((r) => [r.copy.id, r.after.price, r.after.currency]);
  expect(made('EUR 9.00')).toEqual([[1, 900, 'EUR']]);
  expect(made(`${house.currency} 9`)).toEqual([
    [1, 900, undefined],
    [2, 900, undefined],
  ]);
  expect(made(null)).toEqual([
    [1, null, undefined],
    [2, null, undefined],
  ]);
});

test('parts of copies are set, cleared, added to and replaced in, and those that would stay are not touched', () => {
  const copies = [
    copy(1, 1, { note: 'Ex-library. Ex-library.' }),
    copy(2, 1, { status: 'missing', price: null }),
  ];
  const { rows, changes } = changed(
    [holding(1)],
    copies,
    [1, 2],
    edit('status', 'set', 'missing'),
    edit('price', 'clear'),
    edit('note', 'replace', 'Stamped', 'Ex-library'),
  );
  expect(rows.map((r) => r.copy.id)).toEqual([1]);
  expect(changes.map((c) => c.after)).toEqual([
    { ...copies[0]!.value, status: 'missing', price: null, note: 'Stamped. Stamped.' },
  ]);
  const noted = changed([holding(1)], copies, [1, 2], edit('staffNote', 'add', 'Seen in June'));
  expect(noted.rows.map((r) => r.after.staffNote)).toEqual(['Seen in June', 'Seen in June']);
  const again = changed(
    [holding(1)],
    [copy(1, 1, { staffNote: 'Bound', loanRule: 'reference' })],
    [1],
    edit('staffNote', 'add', 'Seen'),
    edit('loanRule', 'set', 'lends'),
  );
  expect(again.rows[0]!.after).toMatchObject({ staffNote: 'Bound; Seen' });
  expect(again.rows[0]!.after).not.toHaveProperty('loanRule');
});

describe('the place of copies', () => {
  test('a holding whose copies all go the same way is changed itself, and keeps its number and notes', () => {
    const all = changed([holding(1)], [copy(1, 1), copy(2, 1)], [1, 2], edit('location', 'set', 'STO'));
    expect(told(all)).toEqual(['holding 1 changed']);
    expect(all.changes[0]!.after).toMatchObject({ location: 'STO', note: 'Signed.' });
  });
  test('some of its copies go to a new holding, made once, and those left keep theirs', () => {
    const some = changed(
      [holding(1)],
      [copy(1, 1), copy(2, 1), copy(3, 1)],
      [1, 2],
      edit('branch', 'set', 'SH'),
      edit('location', 'set', 'FLOOR'),
    );
    expect(told(some)).toEqual(['holding 90 made', 'copy 1 changed', 'copy 2 changed']);
  });
  test('copies go to the holding that is there already, and the one left empty is deleted', () => {
    const joined = changed(
      [holding(1), holding(2, { location: 'STO' })],
      [copy(1, 1), copy(2, 2)],
      [1],
      edit('location', 'set', 'STO'),
    );
    expect(told(joined)).toEqual(['copy 1 changed', 'holding 1 gone']);
    expect(joined.changes[0]!.after).toMatchObject({ holding: 2 });
  });
  test('two holdings with one call number to be meet in one', () => {
    const met = changed(
      [holding(1), holding(2, { class: '746.5' })],
      [copy(1, 1), copy(2, 2)],
      [1, 2],
      edit('class', 'set', '746.9'),
    );
    expect(told(met)).toEqual(['holding 1 changed', 'copy 2 changed', 'holding 2 gone']);
  });
  test('the call number is made anew by the rules of the house at the new place', () => {
    const rule = { name: 'Store', locations: ['STO'], prefix: 'S', markLength: 2 };
    const first = {
      branches: [],
      types: [],
      works: 'any',
      scheme: 'dewey',
      hasClass: true,
      suffix: '',
    } as const;
    const style = {
      mark: 'letters',
      markedBy: 'author',
      decimals: 0,
      isMcAsMac: false,
      hasYear: false,
    } as const;
    const by = {
      house: { ...house, callNumbers: [{ ...first, ...style, ...rule }] },
      lists,
      fields: [],
      nextHolding: () => 90,
    };
    const made = changeMany(
      { record, holdings: [holding(1)], copies: [copy(1, 1)], chosen: new Set([1]) },
      [edit('location', 'set', 'STO'), edit('callNumber', 'house')],
      by,
    );
    expect(made.rows[0]!.to).toMatchObject({ location: 'STO', prefix: 'S', class: '746', item: 'HO' });
  });
  test('a copy that cannot go there stays, and says why; the others go', () => {
    const odd = changed(
      [holding(1), holding(2, { branch: 'SH', location: 'FLOOR' })],
      [copy(1, 1), copy(2, 2)],
      [1, 2],
      edit('location', 'set', 'STO'),
    );
    expect(odd.rows.map((r) => r.problem)).toEqual([
      null,
      expect.stringContaining('“STO” is not a location'),
    ]);
    expect(told(odd)).toEqual(['holding 1 changed']);
    const bare = changeMany(
      {
        record: { ...record, fields: [] },
        holdings: [holding(1)],
        copies: [copy(1, 1)],
        chosen: new Set([1]),
      },
      [edit('callNumber', 'house')],
      { house, lists, fields: [], nextHolding: () => 90 },
    );
    expect([bare.rows[0]!.problem, bare.changes]).toEqual([expect.stringContaining('no class'), []]);
  });
});

test.each<[PartEdit, string]>([
  [edit('type', 'set', 'XX'), 'edits[0].value'],
  [edit('status', 'set', 'gone'), 'edits[0].value'],
  [edit('price', 'set', '-3'), 'edits[0].value'],
  [edit('price', 'set', 'XQX 3.00'), 'edits[0].value'],
  [edit('acquired', 'set', '2026-02-30'), 'edits[0].value'],
  [edit('note', 'replace', 'x'), 'edits[0].find'],
  [edit('branch', 'clear'), 'edits[0].how'],
  [edit('type', 'add', 'BK'), 'edits[0].how'],
  [edit('note', 'set', ' '), 'edits[0].value'],
])('what makes no sense is told at its part: %j', (wrong, at) =>
  expect(editFaults([wrong], lists, house).map((f) => f.field)).toEqual([at]),
);
test('a part that is set twice is told', () =>
  expect(editFaults([edit('fund', 'set', 'GEN'), edit('fund', 'set', 'GEN')], lists, house)).toHaveLength(1));

const someEdit = fc
  .constantFrom(...EDITED_PARTS)
  .chain((part) =>
    fc.record({
      part: fc.constant(part),
      how: fc.constantFrom(...waysOf(part)),
      value: fc.constantFrom(
        'STO',
        'OPEN',
        'MR',
        'SH',
        'BK',
        'missing',
        'GEN',
        '2026-01-02',
        '12.50',
        '746.9',
        'x',
      ),
      find: fc.constantFrom('7', 'H', 'Signed'),
    }),
  )
  .filter((e) => editFaults([e], lists, house).length === 0);
test('whatever is changed: no two holdings of the title stand in one place, no copy hangs on what is gone, doing it twice changes nothing more', () =>
  fc.assert(
    fc.property(
      fc.array(someEdit, { maxLength: 3 }),
      fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 6 }),
      fc.array(fc.integer({ min: 1, max: 6 }), { maxLength: 6 }),
      (edits, of, chosen) => {
        const holdings = [
          holding(1),
          holding(2, { location: 'STO' }),
          holding(3, { class: '746.9', prefix: 'x' }),
        ];
        const copies = of.map((h, i) => copy(i + 1, h));
        const { changes } = changed(holdings, copies, chosen, ...edits);
        const places = new Map(holdings.map((h) => [h.id, h.value]));
        const hangs = new Map(copies.map((c) => [c.id, c.value]));
        for (const c of changes)
          if (c.kind === 'holding') c.after ? places.set(c.id, c.after) : places.delete(c.id);
          else if (c.after) hangs.set(c.id, c.after);
        const keys = [...places.values()].map((h) =>
          [h.branch, h.location, h.prefix, h.class, h.item, h.year ?? '', h.suffix].filter(Boolean).join(' '),
        );
        expect(new Set(keys).size).toBe(keys.length);
        expect([...hangs.values()].every((c) => places.has(c.holding))).toBe(true);
        if (edits.every((e) => e.how === 'set' || e.how === 'clear' || e.how === 'house')) {
          const again = changed(
            [...places].map(([id, value]) => ({ id, version: 1, value })),
            [...hangs].map(([id, value]) => ({ id, version: 3, value })),
            chosen,
            ...edits,
          );
          expect(again.changes).toEqual([]);
        }
      },
    ),
    { numRuns: 300 },
  ));
