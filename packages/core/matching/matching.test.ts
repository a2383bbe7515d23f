import { DEFAULT_HOUSE } from '../house';
import { field, type Field, type MarcRecord } from '../marc';
import { acceptPlan, type AcceptContext, type Incoming } from '../deliveries';
import { findMatches, matchKeys, proposedDecision, replaceRecord, titlesAgree } from '.';

const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const eels = record(
  { tag: '001', value: '7' },
  { tag: '003', value: 'Sup' },
  field('020', '  ', 'a', '0306406152'),
  field('100', '1 ', 'a', 'Reedman, Amos'),
  field('245', '10', 'a', 'Notes on eels /'),
);

test('keys that decide: ISBN in 13 digits, control number with its organisation', () => {
  expect(matchKeys(eels)).toEqual([
    { kind: 'isbn', key: '9780306406157' },
    { kind: 'control', key: 'sup:7' },
  ]);
});
test('the same ISBN on another title is doubtful, a surer match comes first', () => {
  const found = findMatches(eels, [
    { record: 4, kind: 'isbn', key: '9780306406157', title: 'A history of thatch' },
    { record: 9, kind: 'control', key: 'sup:7', title: 'Notes on eels : a book' },
  ]);
  expect(found.map((m) => [m.record, m.doubt !== null])).toEqual([
    [9, false],
    [4, true],
  ]);
  expect(found[1]!.doubt).toContain('A history of thatch');
});
test('a bare control number with another title is no match at all', () => {
  expect(
    findMatches(record({ tag: '001', value: '7' }, field('245', '10', 'a', 'Eels')), [
      { record: 1, kind: 'control', key: ':7', title: 'Thatch and straw' },
    ]),
  ).toEqual([]);
});
test.each([
  ['Notes on eels', 'Notes on eels : with plates', true],
  ['The willow bed', 'The wilow bed', true],
  ['Notes on eels', 'Rope walks', false],
  ['', 'x', true],
])('%s and %s agree: %p', (a, b, agree) => expect(titlesAgree(a, b)).toBe(agree));
test('new ones are proposed to add, held and repeated ones to skip', () => {
  expect([
    proposedDecision([], null),
    proposedDecision([], 3),
    proposedDecision(
      findMatches(eels, [{ record: 4, kind: 'isbn', key: 'x', title: 'Notes on eels' }]),
      null,
    ),
  ]).toEqual(['add', 'skip', 'skip']);
});
test('a replacement keeps our protected fields and number, and takes the rest', () => {
  const held = record(
    { tag: '001', value: 'ours' },
    field('245', '10', 'a', 'Old'),
    field('590', '  ', 'a', 'our note'),
    field('650', ' 0', 'a', 'Old subject'),
    field('949', '  ', 'a', 'local'),
  );
  const next = replaceRecord(
    held,
    record(
      { tag: '001', value: 'theirs' },
      field('245', '10', 'a', 'New'),
      field('590', '  ', 'a', 'their note'),
    ),
    DEFAULT_HOUSE,
  );
  expect(next.fields).toEqual([
    { tag: '001', value: 'ours' },
    field('245', '10', 'a', 'New'),
    field('590', '  ', 'a', 'our note'),
    field('949', '  ', 'a', 'local'),
  ]);
});

describe('accepting', () => {
  const incoming = (
    id: number,
    more: Partial<Incoming> = {},
  ): { id: number; version: number; value: Incoming } => ({
    id,
    version: 1,
    value: {
      delivery: 1,
      seq: id,
      marc: eels,
      decision: 'add',
      target: null,
      state: 'waiting',
      record: null,
      recipe: null,
      ...more,
    },
  });
  const context = (more: Partial<AcceptContext> = {}): AcceptContext => {
    let n = 100;
    return {
      house: DEFAULT_HOUSE,
      held: new Map(),
      knowsHeading: () => false,
      heldSince: () => null,
      nextRecordId: () => ++n,
      nextHeadingId: () => ++n,
      ...more,
    };
  };
  test('added, with its new heading once, and the incoming record marked', () => {
    const plan = acceptPlan([incoming(1), incoming(2)], context());
    expect(plan).toMatchObject({ added: 2, replaced: 0, skipped: 0, newHeadings: 1, left: [] });
    expect(
      plan.changes.filter((c) => c.kind === 'incoming').map((c) => (c.after as Incoming).record),
    ).toEqual([101, 103]);
  });
  test('skipped ones are marked, accepted ones are left alone', () => {
    const plan = acceptPlan(
      [incoming(1, { decision: 'skip' }), incoming(2, { state: 'accepted' })],
      context(),
    );
    expect(plan.changes.map((c) => [c.id, (c.after as Incoming).state])).toEqual([[1, 'skipped']]);
  });
  test('what is in the catalogue since, or cannot be replaced, stays with the reason', () => {
    const held = new Map([[5, { id: 5, version: 2, value: record(field('245', '10', 'a', 'Old')) }]]);
    const plan = acceptPlan(
      [
        incoming(1),
        incoming(2, { decision: 'replace', target: 5 }),
        incoming(3, { decision: 'replace', target: 5 }),
        incoming(4, { decision: 'replace', target: 6 }),
      ],
      context({ held, heldSince: (i) => (i.id === 1 ? 44 : null) }),
    );
    expect(plan.left.map((l) => l.incoming)).toEqual([1, 3, 4]);
    expect(plan.left[0]!.why).toContain('44');
    expect(plan).toMatchObject({ added: 0, replaced: 1 });
  });
});
