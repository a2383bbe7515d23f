import { headingsOf } from '../headings';
import { DEFAULT_HOUSE } from '../house';
import type { Holding, ProposedCopy } from '../holdings';
import { field, type Field, type MarcRecord } from '../marc';
import {
  acceptPlan,
  canBePlannedBehind,
  planning,
  type AcceptChange,
  type AcceptContext,
  type Incoming,
  type IncomingRecord,
} from '.';

const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const eels = record(field('100', '1 ', 'a', 'Reedman, Amos'), field('245', '10', 'a', 'Notes on eels /'));
const copy = (barcode: string, more: Partial<ProposedCopy> = {}): ProposedCopy => ({
  branch: 'MR',
  location: 'OPEN',
  scheme: 'dewey',
  prefix: '',
  class: '597.43',
  item: 'REE',
  suffix: '',
  barcode,
  number: 1,
  type: 'BK',
  price: 1800,
  fund: '',
  supplier: 'Tallow',
  note: '',
  status: 'available',
  problems: [],
  remarks: [],
  ...more,
});
const incoming = (
  id: number,
  { marc = eels, ...more }: Partial<Incoming> & { marc?: MarcRecord } = {},
): IncomingRecord => ({
  id,
  version: 1,
  value: {
    delivery: 1,
    seq: id,
    decision: 'add',
    chosen: false,
    target: null,
    state: 'waiting',
    record: null,
    copies: [],
    note: '',
    edits: 0,
    ...more,
  },
  fields: { id, version: 1, value: { marc, recipe: null } },
});
const context = (more: Partial<AcceptContext> = {}): AcceptContext => {
  let n = 100;
  return {
    house: DEFAULT_HOUSE,
    today: '2026-11-23',
    held: new Map(),
    holdings: new Map(),
    copyNumbers: () => [],
    headingsOf,
    followed: [],
    knowsHeading: () => false,
    replacedBefore: () => false,
    heldSince: () => null,
    barcodeTaken: () => null,
    barcodeGivenUp: () => null,
    nextBarcode: () => null,
    nextId: () => ++n,
    ...more,
  };
};
const held = {
  id: 5,
  version: 2,
  value: record(field('245', '10', 'a', 'Old'), field('590', '  ', 'a', 'ours')),
};
const withHeld = { held: new Map([[5, held]]) };
const of = <K extends AcceptChange['kind']>(changes: readonly AcceptChange[], kind: K) =>
  changes.filter((c): c is Extract<AcceptChange, { kind: K }> => c.kind === kind);

test('added, with its new heading once, and the incoming record marked', () => {
  const { changes, totals, left } = acceptPlan([incoming(1), incoming(2)], context());
  expect([totals.added, totals.newHeadings, left]).toEqual([2, 1, []]);
  expect(of(changes, 'incoming').map((c) => c.after!.state)).toEqual(['accepted', 'accepted']);
});
test('skipped ones are marked, those to ask about and those done are left alone', () => {
  const rows = [
    incoming(1, { decision: 'skip' }),
    incoming(2, { decision: 'ask' }),
    incoming(3, { state: 'accepted' }),
  ];
  const { changes, totals } = acceptPlan(rows, context());
  expect(changes.map((c) => [c.id, (c.after as Incoming).state])).toEqual([[1, 'skipped']]);
  expect([totals.skipped, totals.asked]).toEqual([1, 1]);
});
test('replace and merge keep protected fields; copies only leaves the record as it is', () => {
  const to = (decision: Incoming['decision']) =>
    acceptPlan([incoming(1, { decision, target: 5, copies: [copy('1')] })], context(withHeld));
  const fields = (plan: ReturnType<typeof to>) => of(plan.changes, 'record')[0]!.after!.fields;
  expect(fields(to('replace')).map((f) => f.tag)).toEqual(['100', '245', '590']);
  expect(fields(to('replace'))[1]).toEqual(field('245', '10', 'a', 'Notes on eels /'));
  expect(fields(to('merge'))[1]).toEqual(field('245', '10', 'a', 'Old'));
  const only = to('copies');
  expect([
    of(only.changes, 'record').length,
    of(only.changes, 'copy').length,
    only.totals.copiesOnly,
  ]).toEqual([0, 1, 1]);
});
test('two records merged into one make one change of it', () => {
  const second = record(field('245', '10', 'a', 'x'), field('520', '  ', 'a', 'About.'));
  const rows = [
    incoming(1, { decision: 'merge', target: 5 }),
    incoming(2, { decision: 'merge', target: 5, marc: second }),
  ];
  const { changes, totals } = acceptPlan(rows, context(withHeld));
  expect(of(changes, 'record')).toHaveLength(1);
  expect(of(changes, 'record')[0]!.after!.fields.map((f) => f.tag)).toEqual(['100', '245', '520', '590']);
  expect(totals.merged).toBe(2);
});
test('copies at one place under one call number share a holding, also one that is there', () => {
  const there = { id: 70, version: 1, value: { ...copy(''), record: 5 } as unknown as Holding };
  const rows = [
    incoming(1, { copies: [copy('1'), copy('2', { number: 2 }), copy('3', { location: 'BENCH' })] }),
    incoming(2, { decision: 'copies', target: 5, copies: [copy('4'), copy('5', { part: 'v. 2' })] }),
  ];
  const { changes, totals } = acceptPlan(
    rows,
    context({
      ...withHeld,
      holdings: new Map([[5, [there]]]),
      copyNumbers: (r, part) => (r === 5 && part === '' ? [1, 2, 3] : []),
    }),
  );
  expect(of(changes, 'holding').map((c) => c.after!.location)).toEqual(['OPEN', 'BENCH']);
  const copies = of(changes, 'copy').map((c) => c.after!);
  expect(copies.map((c) => c.number)).toEqual([1, 2, 3, 4, 1]);
  expect(copies[3]).toMatchObject({ holding: 70, acquired: '2026-11-23', price: 1800 });
  expect(copies[4]!.part).toBe('v. 2');
  expect(totals.copies).toBe(5);
});
test('barcodes from the roll pass over those that records bring', () => {
  const roll = ['8', '9', '10'];
  const rows = [incoming(1, { copies: [copy('8')] }), incoming(2, { copies: [copy(''), copy('')] })];
  const { changes } = acceptPlan(rows, context({ nextBarcode: () => roll.shift() ?? null }));
  expect(of(changes, 'copy').map((c) => c.after!.barcode)).toEqual(['8', '9', '10']);
  expect(of(changes, 'incoming')[1]!.after!.copies.map((c) => c.barcode)).toEqual(['9', '10']);
});
test.each<[string, IncomingRecord[], Partial<AcceptContext>, RegExp]>([
  ['in the catalogue since', [incoming(1)], { heldSince: () => 44 }, /Record 44 with the same number/],
  ['no record chosen', [incoming(1, { decision: 'replace' })], {}, /No matching record/],
  ['record gone', [incoming(1, { decision: 'merge', target: 6 })], {}, /Record 6 is no longer there/],
  ['no copy to attach', [incoming(1, { decision: 'copies', target: 5 })], withHeld, /no copies to attach/],
  [
    'a copy with a problem',
    [incoming(1, { copies: [copy('1', { problems: ['Choose a branch.'] })] })],
    {},
    /Choose a branch/,
  ],
  [
    'a barcode that is taken',
    [incoming(1, { copies: [copy('1')] })],
    { barcodeTaken: () => 'Eels' },
    /already on “Eels”/,
  ],
  [
    'replaced by an earlier one of the delivery',
    [incoming(1, { decision: 'replace', target: 5 })],
    { ...withHeld, replacedBefore: () => true },
    /replaces record 5 already/,
  ],
  ['an empty roll', [incoming(1, { copies: [copy('')] })], {}, /no number left/],
])('%s: it stays, with the reason, and nothing of it is done', (_, rows, more, said) => {
  const { changes, left } = acceptPlan(rows, context(more));
  expect(changes).toEqual([]);
  expect(left[0]!.why).toMatch(said);
});
test('a second replacement of one record, and a barcode twice, stay', () => {
  const to = (id: number, barcode: string) =>
    incoming(id, { decision: 'replace', target: 5, copies: [copy(barcode)] });
  const { left, totals } = acceptPlan(
    [to(1, '1'), to(2, '2'), incoming(3, { copies: [copy('1')] })],
    context(withHeld),
  );
  expect(
    left.map((l) => [
      l.incoming,
      l.why.includes('replaces record 5 already') || l.why.includes('another copy'),
    ]),
  ).toEqual([
    [2, true],
    [3, true],
  ]);
  expect(totals.replaced).toBe(1);
});
test('planned piece by piece, it comes to the same as planned whole', () => {
  const rows = [
    incoming(1, { copies: [copy('1')] }),
    incoming(2, { decision: 'merge', target: 5 }),
    incoming(3, { decision: 'replace', target: 5 }),
    incoming(4, { decision: 'replace', target: 5 }),
    incoming(5, { copies: [copy('1')] }),
    incoming(6),
    incoming(7, { decision: 'skip' }),
  ];
  const whole = acceptPlan(rows, context(withHeld));
  const plan = planning();
  const pieces = rows.map((row) => plan([row], context(withHeld)));
  const sum = (name: keyof typeof whole.totals) => pieces.reduce((n, p) => n + p.totals[name], 0);
  for (const [name, n] of Object.entries(whole.totals)) expect([name, sum(name as never)]).toEqual([name, n]);
  expect(pieces.flatMap((p) => p.left)).toEqual(whole.left);
  expect(whole.totals).toMatchObject({ added: 2, merged: 1, replaced: 1, newHeadings: 1 });
});

test('planned behind a piece that is not written yet, it comes to the same as planned when that is', () => {
  const first = [incoming(1, { copies: [copy('1')] }), incoming(2, { decision: 'merge', target: 5 })];
  const second = [incoming(3), incoming(4, { copies: [copy('1')] }), incoming(5, { copies: [copy('')] })];
  // The catalogue as it is before the first piece is written: it knows neither its heading nor its barcode, and its roll gives that barcode again.
  const roll = () => {
    let n = 0;
    return () => String(++n);
  };
  const before = acceptPlan(first, context(withHeld));
  expect(before.totals).toMatchObject({ added: 1, merged: 1, newHeadings: 1, copies: 1 });
  const behind = acceptPlan(second, context({ ...withHeld, nextBarcode: roll() }), before.unwritten);
  expect(behind.totals).toMatchObject({ added: 2, newHeadings: 0, copies: 1 });
  expect(behind.left.map((l) => [l.incoming, l.why])).toEqual([
    [4, 'Barcode 1 is on another copy of this delivery already.'],
  ]);
  expect(behind.changes.flatMap((c) => (c.kind === 'copy' ? [c.after?.barcode] : []))).toEqual(['2']);
  // What the first piece made is no matter of the piece after the second.
  expect([behind.unwritten.headings.size, [...behind.unwritten.barcodes]]).toEqual([0, ['2']]);
});
test('what is about a held record that the piece before changes waits until that is written', () => {
  const { unwritten } = acceptPlan([incoming(1, { decision: 'merge', target: 5 })], context(withHeld));
  expect(canBePlannedBehind(unwritten, [incoming(2), incoming(3, { decision: 'copies', target: 6 })])).toBe(
    true,
  );
  for (const decision of ['merge', 'replace', 'copies'] as const)
    expect(canBePlannedBehind(unwritten, [incoming(2), incoming(3, { decision, target: 5 })])).toBe(false);
  const copies = acceptPlan(
    [incoming(1, { decision: 'copies', target: 5, copies: [copy('1')] })],
    context(withHeld),
  );
  expect(canBePlannedBehind(copies.unwritten, [incoming(2, { decision: 'merge', target: 5 })])).toBe(false);
});
