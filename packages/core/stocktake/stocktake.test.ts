import fc from 'fast-check';
import { byKey } from '../callnumbers';
import type { Copy, Holding } from '../holdings';
import { outOfOrder, outsideStretch, reconcile, settlePlan, type ShelfCopy, type Stretch } from '.';

const stretch: Stretch = { branch: 'MR', locations: ['OPEN'], types: [], scheme: 'dewey', from: '', to: '' };
const copy = (n: number, more: Partial<ShelfCopy> = {}): ShelfCopy => ({
  copyId: n,
  barcode: `b${String(n).padStart(3, '0')}`,
  recordId: n,
  title: `T${n}`,
  branch: 'MR',
  location: 'OPEN',
  type: 'BK',
  callNumber: `7${n}`,
  shelfKey: `7${String(n).padStart(4, '0')}`,
  status: 'available',
  onLoan: false,
  lastSeen: '',
  ...more,
});
const options = {
  jumpLength: 3,
  seenSince: '',
  branchName: (c: string) => c,
  locationName: (c: string) => c,
};
const kinds = (copies: ShelfCopy[], scans: string[], withdrawn = new Map<string, string>(), more = {}) => {
  const r = reconcile(stretch, { copies, scans, withdrawn }, { ...options, ...more });
  return { ...r, kinds: r.findings.map((f) => `${f.kind} ${f.code}`) };
};
const five = [1, 2, 3, 4, 5].map((n) => copy(n));
const codes = five.map((c) => c.barcode);

test('all scanned in order: nothing to find', () =>
  expect(kinds(five, codes)).toMatchObject({ expected: 5, found: 5, kinds: [], jumps: [] }));
test('not scanned is not found, and can be marked missing', () => {
  const r = kinds(
    five,
    codes.filter((c) => c !== 'b003'),
  );
  expect(r.kinds).toEqual(['not-found b003']);
  expect(r.findings[0]!.settlements).toEqual(['mark-missing']);
});
test.each<[string, Partial<ShelfCopy>, object]>([
  ['on loan', { onLoan: true }, {}],
  ['in repair', { status: 'in repair' }, {}],
  ['seen since', { lastSeen: '2026-10-02' }, { seenSince: '2026-10-01' }],
])('%s is accounted for', (_, more, set) => {
  expect(kinds([...five.slice(0, 4), copy(5, more)], codes.slice(0, 4), new Map(), set)).toMatchObject({
    accountedFor: 1,
    kinds: [],
  });
});
test('copies known missing or lost are not expected', () =>
  expect(kinds([...five.slice(0, 4), copy(5, { status: 'missing' })], codes.slice(0, 4))).toMatchObject({
    expected: 4,
    kinds: [],
  }));
test.each<[string, Partial<ShelfCopy>, string[]]>([
  ['recorded lost', { status: 'lost' }, ['mark-found']],
  ['recorded missing', { status: 'missing' }, ['mark-found']],
  ['recorded on loan', { onLoan: true }, []],
  ['another branch’s', { branch: 'SH' }, ['correct-location']],
  ['another location’s', { location: 'BENCH' }, ['correct-location']],
])('%s, and it stands here', (_, more, settlements) => {
  const r = kinds([...five.slice(0, 4), copy(5, more)], codes);
  expect(r.kinds).toEqual(['should-not-be-here b005']);
  expect(r.findings[0]!.settlements).toEqual(settlements);
});
test('withdrawn and unknown codes', () =>
  expect(kinds(five, [...codes, 'gone', 'what'], new Map([['gone', '2020-01-01']])).kinds).toEqual([
    'should-not-be-here gone',
    'unknown what',
  ]));
test('a misread code names the copy not found that it may be', () => {
  const digits = [copy(1, { barcode: '31204000500001' }), copy(2, { barcode: '31204000500019' })];
  const r = kinds(digits, ['31204000500001', '3120400050019']);
  expect(r.findings.find((f) => f.kind === 'unknown')!.near).toEqual(['31204000500019']);
});
test('one out of order is told with its neighbours', () => {
  const r = kinds(five, ['b001', 'b004', 'b002', 'b003', 'b005']);
  expect(r.kinds).toEqual(['out-of-order b004']);
  expect(r.findings[0]!.between).toEqual(['b003', 'b005']);
});
test('a run not scanned is a jump, shown as a notch instead of ghosts', () => {
  const ten = Array.from({ length: 10 }, (_, i) => copy(i + 1));
  const r = kinds(
    ten,
    ten.filter((_, i) => i < 3 || i > 6).map((c) => c.barcode),
  );
  expect(r.jumps).toEqual([{ after: 'b003', count: 4, from: '74', to: '77' }]);
  expect(r.spines.filter((s) => s.state === 'not-found')).toHaveLength(0);
  expect(r.spines.find((s) => s.jumped)).toMatchObject({ code: 'b008', jumped: 4 });
});
test('the stretch is a range of call numbers, its end with all that begins so', () => {
  const s = { ...stretch, from: '746', to: '746' };
  const at = (key: string) => outsideStretch(copy(1, { shelfKey: key }), s);
  expect([at('745.9 ABC'), at('746 ABC'), at('746.41 ABC'), at('747 ABC')]).toEqual([
    'range',
    null,
    null,
    'range',
  ]);
});

test('the fewest are lifted, and the rest stands in order', () => {
  fc.assert(
    fc.property(fc.array(fc.stringMatching(/^[a-d]{1,2}$/), { maxLength: 9 }), (keys) => {
      const lifted = new Set(outOfOrder(keys));
      const rest = keys.filter((_, i) => !lifted.has(i));
      expect([...rest].sort(byKey)).toEqual(rest);
      // Every choice of fewer to lift leaves something out of order.
      for (let mask = 0; mask < 1 << keys.length; mask++) {
        const kept = keys.filter((_, i) => !(mask & (1 << i)));
        if (keys.length - kept.length < lifted.size)
          expect([...kept].sort(byKey).every((k, i) => k === kept[i])).toBe(false);
      }
    }),
    { numRuns: 60 },
  );
});

describe('settling', () => {
  const holding = (id: number, location: string): { id: number; version: number; value: Holding } => ({
    id,
    version: 1,
    value: {
      record: 1,
      branch: 'SH',
      location,
      scheme: 'dewey',
      prefix: '',
      class: '7',
      item: 'A',
      suffix: '',
      note: '',
    },
  });
  const held = { id: 5, version: 2, value: { holding: 10, status: 'lost' } as Copy };
  const terms = { on: '2026-11-23', branch: 'MR', location: 'OPEN', nextHoldingId: () => 77 };
  test('found again: available, seen today', () => {
    expect(
      settlePlan(
        [{ act: 'mark-found', copy: held, holding: holding(10, 'READ'), siblings: [], copiesAtHolding: 2 }],
        terms,
      )[0]!.after,
    ).toMatchObject({ status: 'available', lastSeen: '2026-11-23' });
  });
  test('belongs here: a holding is made where there is none, and the emptied one goes', () => {
    const changes = settlePlan(
      [
        {
          act: 'correct-location',
          copy: held,
          holding: holding(10, 'READ'),
          siblings: [holding(10, 'READ')],
          copiesAtHolding: 1,
        },
      ],
      terms,
    );
    expect(
      changes.map((c) => [
        c.kind,
        c.id,
        c.before === null ? 'made' : c.after === null ? 'removed' : 'changed',
      ]),
    ).toEqual([
      ['holding', 77, 'made'],
      ['copy', 5, 'changed'],
      ['holding', 10, 'removed'],
    ]);
  });
});
