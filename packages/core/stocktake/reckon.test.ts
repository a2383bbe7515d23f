import {
  CodeSense,
  reckon,
  swappedClasses,
  whereToLook,
  settlePlan,
  stretchTest,
  type ReckonedCopy,
  type ReckonedRun,
  type Stretch,
} from '.';
import type { Copy, Holding } from '../holdings';

const copy = (n: number, more: Partial<ReckonedCopy> = {}): ReckonedCopy => ({
  ...{
    id: n,
    record: n,
    barcode: `3120400000${String(n).padStart(3, '0')}`,
    status: 'available',
    lastSeen: '',
  },
  ...{
    home: 0,
    outside: 'location',
    call: `7${String(n).padStart(3, '0')}`,
    author: '',
    title: '',
    outcome: 2,
    scanned: '',
    heard: '',
  },
  ...{ callNumber: `7${n}`, name: `T${n}`, branch: 'MR', location: 'OPEN', type: 'BK' },
  ...more,
});
const names = { branchName: (c: string) => `branch ${c}`, locationName: (c: string) => `location ${c}` };
const rules = {
  ...{
    seenSince: '',
    skipRunMin: 3,
    codes: new CodeSense([{ length: 13, check: 'none' as const, prefix: '31204' }]),
  },
  isExpected: (status: string) => ['available', 'reserved'].includes(status),
};
const five = [1, 2, 3, 4, 5].map((n) => copy(n));
const codesOf = (copies: readonly ReckonedCopy[]) => copies.map((c) => c.barcode);
const told = (copies: readonly ReckonedCopy[], ...runs: (readonly string[])[]) => {
  const input = {
    homes: [{ branch: 'MR', location: 'OPEN', order: 'call' as const }],
    copies,
    runs: runs.map((codes, id): ReckonedRun => ({ id, location: '', codes })),
  };
  const r = reckon(input, rules, names);
  return {
    ...r,
    kinds: r.findings.map((f) => `${f.kind} ${f.callNumber || f.code}`),
    outcomes: Object.fromEntries(r.changed),
  };
};

test('all scanned in order: every copy stood, nothing to find', () =>
  expect(told(five, codesOf(five))).toMatchObject({ kinds: [], outcomes: { 1: 0, 2: 0, 3: 0, 4: 0, 5: 0 } }));

test.each<[string, Partial<ReckonedCopy>, string[], RegExp]>([
  ['recorded lost', { status: 'lost' }, ['mark-found', 'mark-found-tell', 'done'], /billed/],
  ['recorded missing', { status: 'missing' }, ['mark-found', 'mark-found-tell', 'done'], /^Recorded missing/],
  ['recorded on loan', { status: 'on loan' }, ['done', 'return'], /must check it in/],
  [
    'on loan on the day of the scan',
    { status: 'on loan', scanned: '2026-03-02', heard: '2026-03-02' },
    ['done', 'return'],
    /must check it in/,
  ],
  [
    'on loan later',
    { status: 'on loan', scanned: '2026-03-02', heard: '2026-03-03' },
    ['done', 'return'],
    /lent in between/,
  ],
  ['in repair', { status: 'in repair' }, ['mark-found', 'done'], /^Recorded in repair/],
])('%s, and it stands here', (_, more, acts, says) => {
  const [found] = told([...five.slice(0, 4), copy(5, more)], codesOf(five)).findings;
  expect(found).toMatchObject({ kind: 'found', acts, message: expect.stringMatching(says) as string });
});

test('lost and of another branch are two findings of one copy', () => {
  const both = copy(9, { status: 'lost', home: -1, outside: 'branch', branch: 'SH', outcome: null });
  const { findings } = told([...five, both], [...codesOf(five), both.barcode]);
  expect(findings.map((f) => [f.kind, f.message])).toEqual([
    ['found', 'Recorded lost but on the shelf. A reader may have been billed for it.'],
    ['elsewhere', 'Belongs to branch SH.'],
  ]);
});

test('one out of order is told with its neighbours; what stands together is told once', () => {
  const eight = [1, 2, 3, 4, 5, 6, 7, 8].map((n) => copy(n));
  const order = [1, 6, 7, 2, 3, 4, 5, 8].map((n) => eight[n - 1]!.barcode);
  const { findings } = told(eight, order);
  expect(findings).toMatchObject([
    {
      kind: 'misplaced',
      callNumber: '76',
      count: 2,
      others: [eight[6]!.barcode],
      message: expect.stringContaining('between 75 and 78') as string,
    },
  ]);
});

test('two walks each have their own order, and a copy that one of them read stood', () => {
  const { findings, outcomes } = told(
    five,
    [five[3]!.barcode, five[4]!.barcode],
    [five[0]!.barcode, five[1]!.barcode],
  );
  expect(findings.filter((f) => f.kind === 'misplaced')).toEqual([]);
  expect(outcomes).toEqual({ 1: 0, 2: 0, 3: 1, 4: 0, 5: 0 });
});

test('a run that nobody scanned is a skipped shelf: a notch in the picture, not a ghost for each', () => {
  const ten = Array.from({ length: 10 }, (_, i) => copy(i + 1));
  const walked = ten.filter((_, i) => i < 3 || i > 6);
  const r = told(ten, codesOf(walked));
  expect(r.findings).toMatchObject([
    { kind: 'skipped', count: 4, message: '4 copies in a row not scanned, from 74 to 77.' },
  ]);
  const { spines } = r.spines[0]!;
  expect(spines.filter((s) => s.state === 'missing')).toEqual([]);
  expect(spines.find((s) => s.jumped)).toMatchObject({ callNumber: '78', jumped: 4 });
});

test('a missing copy is a ghost at its place', () => {
  const { spines } = told(five, codesOf(five.filter((c) => c.id !== 3))).spines[0]!;
  expect(spines.map((s) => `${s.callNumber} ${s.state}`)).toEqual([
    '71 in place',
    '72 in place',
    '73 missing',
    '74 in place',
    '75 in place',
  ]);
});

test('a code that was not read right stands in the picture as the copy it is taken for', () => {
  const [first, second, third, ...rest] = codesOf(five);
  const misread = `${third!.slice(0, -1)}X`;
  const { spines } = told(five, [first!, second!, misread, ...rest]).spines[0]!;
  expect(spines.map((s) => `${s.callNumber} ${s.state}`)).toEqual([
    '71 in place',
    '72 in place',
    '73 misread',
    '74 in place',
    '75 in place',
  ]);
  expect(spines[2]).toMatchObject({ code: misread, copy: 3 });
  // Read right at once after, it stands where that was.
  const again = told(five, [first!, second!, misread, third!, ...rest]).spines[0]!.spines;
  expect(again.map((s) => s.state)).toEqual(five.map(() => 'in place'));
  const unknown = told(five, [...codesOf(five), '9']).spines[0]!.spines;
  expect(unknown.at(-1)).toMatchObject({ state: 'unknown', code: '9', copy: null });
});

test('a code scanned twice near and far', () => {
  const codes = codesOf(five);
  expect(told(five, [codes[0]!, ...codes]).findings[0]!.message).toBe('Scanned 2 times one after the other.');
  expect(told(five, [...codes, codes[0]!]).findings[0]!.message).toContain(
    'do two things have this barcode?',
  );
});

test('the stretch is a range of call numbers, its end with all that begins so', () => {
  const stretch: Stretch = {
    branch: 'MR',
    locations: ['OPEN'],
    types: [],
    scheme: 'dewey',
    from: '746',
    to: '746',
  };
  const at = (shelfKey: string) =>
    stretchTest(stretch)({ branch: 'MR', location: 'OPEN', type: 'BK', shelfKey });
  expect([at('745.9 ABC'), at('746 ABC'), at('746.41 ABC'), at('747 ABC')]).toEqual([
    'range',
    null,
    null,
    'range',
  ]);
});

test('in a stretch of two branches a copy read in the other branch is told by its branch, and not missing at home', () => {
  const two: Stretch = {
    ...{ branch: 'MR', also: ['SH'], locations: [], types: [], scheme: 'dewey', from: '', to: '' },
  };
  const place = { location: 'READ', type: 'BK', shelfKey: '1' };
  expect(stretchTest(two)({ ...place, branch: 'SH' })).toBeNull();
  expect(stretchTest(two)({ ...place, branch: 'HB' })).toBe('branch');
  const own = copy(1);
  const other = copy(2, { home: 1, branch: 'SH', location: 'READ' });
  const inDrawer = copy(3, { home: 2, location: 'PATT' });
  const r = reckon(
    {
      homes: [
        { branch: 'MR', location: 'OPEN', order: 'call' },
        { branch: 'SH', location: 'READ', order: 'call' },
        { branch: 'MR', location: 'PATT', order: 'call' },
      ],
      copies: [own, other, inDrawer],
      runs: [{ id: 1, location: 'OPEN', codes: codesOf([own, other, inDrawer]) }],
    },
    rules,
    names,
  );
  expect(r.findings.map((f) => `${f.kind} ${f.message}`)).toEqual([
    'elsewhere Belongs to branch SH.',
    'elsewhere Belongs to location PATT.',
  ]);
  expect(Object.fromEntries(r.changed)).toEqual({ 1: 0, 2: 0, 3: 0 });
});

test.each([
  ['746.41 REE', ['476.41', '764.41', '744.61', '746.14']],
  ['512 HOL', ['152', '521']],
  ['500.5', ['050.5', '505']],
  ['QA76 .B3', []],
  ['J 746 HOL', []],
])('“%s” may stand at %j', (number, classes) => expect(swappedClasses(number)).toEqual(classes));

const NOWHERE = { classes: [], ofAuthor: [], lastSeen: '' };
test('where a missing copy is looked for', () => {
  expect(whereToLook('746 A', '746 C', NOWHERE)).toBe('Expected between 746 A and 746 C.');
  expect(whereToLook('746 A', null, { ...NOWHERE, classes: ['764'] })).toContain('Look at 764 as well');
  expect(whereToLook(null, null, NOWHERE)).toBe('Expected here and not scanned.');
  expect(
    whereToLook('746 A', null, { classes: [], ofAuthor: ['677 A', '745 A'], lastSeen: '2025-03-01' }),
  ).toBe('Expected behind 746 A. Other books of the author stand at 677 A, 745 A. Last seen on 2025-03-01.');
});

describe('settling', () => {
  const holding = (id: number, location: string): { id: number; version: number; value: Holding } => ({
    ...{ id, version: 1 },
    value: {
      ...{
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
    },
  });
  const held = { id: 5, version: 2, value: { holding: 10, status: 'lost' } as Copy };
  const terms = { on: '2026-11-23', branch: 'MR', location: 'OPEN', nextHoldingId: () => 77 };
  const item = (act: 'mark-found' | 'correct-location' | 'done', copiesAtHolding = 1) => ({
    ...{ act, copy: held, holding: holding(10, 'READ'), siblings: [holding(10, 'READ')], copiesAtHolding },
  });
  test('found again: available, seen today', () =>
    expect(settlePlan([item('mark-found', 2)], terms)[0]!.after).toMatchObject({
      status: 'available',
      lastSeen: '2026-11-23',
    }));
  test('belongs here: a holding is made where there is none, and the emptied one goes', () =>
    expect(
      settlePlan([item('correct-location')], terms).map((c) => [
        c.kind,
        c.id,
        c.before === null ? 'made' : c.after === null ? 'removed' : 'changed',
      ]),
    ).toEqual([
      ['holding', 77, 'made'],
      ['copy', 5, 'changed'],
      ['holding', 10, 'removed'],
    ]));
  test('a copy of two findings changes once', () => {
    const changes = settlePlan([item('mark-found'), item('correct-location')], terms);
    expect(changes.filter((c) => c.kind === 'copy').map((c) => c.after)).toEqual([
      { holding: 77, status: 'available', lastSeen: '2026-11-23' },
    ]);
  });
  test('what was seen to at the shelf changes nothing in the catalogue', () =>
    expect(settlePlan([item('done')], terms)).toEqual([]));
});
