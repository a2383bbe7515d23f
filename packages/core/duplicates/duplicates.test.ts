import type { Copy, Holding } from '../holdings';
import { describe as describeRecord } from '../matching';
import { field, type MarcRecord } from '../marc';
import { pairsOf, recordMergePlan, type RecordMerge, type Stocked } from '.';

const marc = (title: string, isbn = '', year = '2019'): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    ...(isbn ? [field('020', '  ', 'a', isbn)] : []),
    field('100', '1 ', 'a', 'Fen, Hob.'),
    field('245', '10', 'a', title),
    field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed,', 'c', `${year}.`),
  ],
});
const holding = (id: number, record: number, branch: string, cls = '639.1'): Stocked['holding'] => ({
  id,
  version: 1,
  value: {
    record,
    branch,
    location: 'OPEN',
    scheme: 'dewey',
    prefix: '',
    class: cls,
    item: 'FEN',
    suffix: '',
    note: '',
  } satisfies Holding,
});
const copy = (id: number, at: number, number: number, part?: string): Stocked['copies'][number] => ({
  id,
  version: 1,
  value: {
    holding: at,
    barcode: `b${id}`,
    ...(part && { part }),
    number,
    type: 'BK',
    price: null,
    fund: '',
    supplier: '',
    acquired: '',
    condition: '',
    note: '',
    status: 'available',
    lastSeen: '',
  } satisfies Copy,
});
const versioned = (id: number, value: MarcRecord) => ({ id, version: 1, value });

function planned(more: Partial<RecordMerge>) {
  return recordMergePlan({
    base: versioned(1, marc('Eels')),
    marc: marc('Eels and traps'),
    lost: [versioned(2, marc('Eels'))],
    kept: [],
    moving: [],
    piled: [],
    ...more,
  });
}

test('copies move into the holding of the same place and are numbered on, by part', () => {
  const changes = planned({
    kept: [
      { holding: holding(10, 1, 'MR'), copies: [copy(20, 10, 1), copy(21, 10, 2), copy(22, 10, 1, 'v. 2')] },
    ],
    moving: [
      { holding: holding(11, 2, 'MR'), copies: [copy(23, 11, 1), copy(24, 11, 1, 'V. 2'), copy(25, 11, 0)] },
      { holding: holding(12, 2, 'SH'), copies: [copy(26, 12, 2)] },
    ],
  });
  const copies = changes.flatMap((c) =>
    c.kind === 'copy' ? [[c.id, c.after?.holding, c.after?.number]] : [],
  );
  expect(copies).toEqual([
    [23, 10, 3],
    [24, 10, 2],
    [25, 10, 0],
    [26, 12, 4],
  ]);
  const holdings = changes.flatMap((c) =>
    c.kind === 'holding' ? [[c.id, c.after?.record ?? null, c.after?.branch ?? null]] : [],
  );
  expect(holdings).toEqual([
    [11, null, null],
    [12, 1, 'SH'],
  ]);
});

test('the kept record becomes what was chosen, the others go, and their numbers lead to it', () => {
  const changes = planned({ lost: [versioned(2, marc('Eels')), versioned(3, marc('Eels'))] });
  expect(changes.map((c) => [c.kind, c.id, c.after === null])).toEqual([
    ['record', 1, false],
    ['record', 2, true],
    ['record', 3, true],
    ['lead', 2, false],
    ['lead', 3, false],
  ]);
});

test('a pile has the kept record once', () => {
  const lies = (id: number, pile: number, object: number) => ({
    id,
    version: 1,
    value: { pile, kind: 'record' as const, object },
  });
  const changes = planned({ piled: [lies(1, 7, 1), lies(2, 7, 2), lies(3, 8, 2)] });
  expect(changes.filter((c) => c.kind === 'piled').map((c) => [c.id, c.after])).toEqual([
    [2, null],
    [3, { pile: 8, kind: 'record', object: 1 }],
  ]);
});

test('pairs are told once, with why; the same title of another year or edition is none', () => {
  const records = [
    marc('The eels of Osmere', '9780306406157'),
    marc('Eels of Osmere, The', '0306406152'),
    marc('The eels of Osmere', '', '1951'),
    marc('Otters of Osmere'),
  ].map((m, i) => ({ record: i + 1, description: describeRecord(m) }));
  const pairs = pairsOf(records.map((r) => ({ ...r, among: records })));
  expect(pairs.map((p) => [p.a, p.b])).toContainEqual([1, 2]);
  expect(pairs.find((p) => p.a === 1 && p.b === 2)?.why).toContain('ISBN 9780306406157');
  expect(pairs.filter((p) => p.a === 3 || p.b === 3 || p.b === 4)).toEqual([]);
});
