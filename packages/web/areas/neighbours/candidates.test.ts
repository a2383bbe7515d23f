/** @jest-environment jsdom */
import type { NeighbourAnswer, NeighbourRow } from '@osier/contract';
import { FIRST_RULE } from '@osier/core/callnumbers';
import { DEFAULT_HOUSE } from '@osier/core/house';
import { field, type MarcRecord } from '@osier/core/marc';
import { NEW_NEIGHBOUR } from '@osier/core/neighbours';
import { inOffer, shownCandidate, worksOf } from './candidates';
import { firstCopy, followedOffers, keepCommon } from './copy-rows';

const { secret: _, ...blank } = NEW_NEIGHBOUR;
const neighbour = (id: number, trust: number): NeighbourRow => ({
  ...{ id, version: 1, hasPassword: false, out: null },
  neighbour: { ...blank, name: `N${id}`, trust, materials: [] },
});
const record = (title: string, isbn: string, ...more: MarcRecord['fields'][number][]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    field('020', '  ', 'a', isbn),
    field('100', '1 ', 'a', 'Fenn, Ada.'),
    field('245', '10', 'a', title),
    ...more,
  ],
});
const answer = (...records: MarcRecord[]): NeighbourAnswer => ({
  ...{ state: 'found', message: '', told: [], count: records.length, milliseconds: 1 },
  records: records.map((marc) => ({
    marc,
    left: [],
    changed: '2024-05-06',
    told: [],
    errors: 0,
    warnings: 0,
    advice: 0,
  })),
});
const taste = { language: 'eng', classTag: '082' };
const eels = record('Eels of Osmere.', '9780306406157');
const full = record(
  'Eels of Osmere.',
  '9780306406157',
  field('082', '04', 'a', '639.2'),
  field('300', '  ', 'a', '20 pages'),
  field('650', ' 0', 'a', 'Eels.'),
);
const other = record('Willow beds.', '9780804429573');

test('the records of all answers are grouped, the best first, and one that was put aside gives way to the next', () => {
  const works = worksOf(
    { 1: answer(eels, other), 2: answer(full), 3: 'asking' },
    [neighbour(1, 3), neighbour(2, 3), neighbour(3, 5)],
    taste,
  );
  const all = inOffer(works);
  expect(works.map((w) => w.map((e) => e.map((c) => c.key)))).toEqual([[['2 0', '1 0']], [['1 1']]]);
  expect(all[0]!.worth.date).toBe('2024-05-06');
  expect(shownCandidate(all, null, [])!.key).toBe('2 0');
  expect(shownCandidate(all, null, ['2 0'])!.key).toBe('1 0');
  expect(shownCandidate(all, '1 1', ['2 0'])!.key).toBe('1 1');
  // When all were put aside there is still one to look at.
  expect(
    shownCandidate(
      all,
      null,
      all.map((c) => c.key),
    )!.key,
  ).toBe('2 0');
  expect(shownCandidate([], null, [])).toBeNull();
});

test('trust decides between records of the same worth', () => {
  const works = worksOf({ 1: answer(eels), 2: answer(eels) }, [neighbour(1, 1), neighbour(2, 5)], taste);
  expect(inOffer(works).map((c) => c.neighbour.id)).toEqual([2, 1]);
});

test('the copies of the next book begin as the last ones were, under its own call number', () => {
  localStorage.clear();
  const usual = { branch: 'MR', location: 'OPEN', type: 'BK' };
  const first = firstCopy(full, DEFAULT_HOUSE, usual);
  expect(first).toMatchObject({ ...usual, class: '639.2', item: 'FEN', barcode: '', fund: '' });
  keepCommon({ ...first, branch: 'SH', location: 'READ', fund: 'HOLT', price: '12.50', barcode: '1' });
  expect(firstCopy(other, DEFAULT_HOUSE, usual)).toMatchObject({
    branch: 'SH',
    location: 'READ',
    fund: 'HOLT',
    price: '12.50',
    barcode: '',
  });
});

test('a copy that goes to another place gets the call number of that place, but not over one that was typed', () => {
  localStorage.clear();
  const house = { ...DEFAULT_HOUSE, callNumbers: [{ ...FIRST_RULE, branches: ['SH'], prefix: 'REF' }] };
  const [row] = [firstCopy(full, house, { branch: 'MR', location: 'OPEN', type: 'BK' })];
  expect(row.prefix).toBe('');
  expect(followedOffers([row], [{ ...row, branch: 'SH' }], full, house)[0]).toMatchObject({
    prefix: 'REF',
    class: '639.2',
  });
  const typed = { ...row, class: '799' };
  expect(followedOffers([typed], [{ ...typed, branch: 'SH' }], full, house)[0]).toMatchObject({
    prefix: '',
    class: '799',
  });
});
