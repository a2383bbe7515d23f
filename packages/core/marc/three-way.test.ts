import fc from 'fast-check';
import { field, reconciled, type MarcRecord } from '.';

const record = (...texts: string[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: texts.map((t) => field(t.slice(0, 3), '  ', 'a', t.slice(4))),
});
const texts = (r: MarcRecord) =>
  r.fields.map((f) => `${f.tag} ${'subfields' in f ? f.subfields[0]!.value : f.value}`);
const base = record('100 A', '245 T', '300 P', '500 N');

test.each<[string, string[], string[], string[]]>([
  [
    'two fields, one each',
    ['100 A', '245 mine', '300 P', '500 N'],
    ['100 A', '245 T', '300 P', '500 theirs'],
    ['100 A', '245 mine', '300 P', '500 theirs'],
  ],
  [
    'the same in both',
    ['100 A', '245 X', '300 P', '500 N'],
    ['100 A', '245 X', '300 P', '500 N'],
    ['100 A', '245 X', '300 P', '500 N'],
  ],
  [
    'one removes, the other adds elsewhere',
    ['100 A', '245 T', '500 N'],
    ['100 A', '245 T', '300 P', '500 N', '650 S'],
    ['100 A', '245 T', '500 N', '650 S'],
  ],
  [
    'both add at the end',
    ['100 A', '245 T', '300 P', '500 N', '650 mine'],
    ['100 A', '245 T', '300 P', '500 N', '650 theirs'],
    ['100 A', '245 T', '300 P', '500 N', '650 theirs', '650 mine'],
  ],
])('%s: nothing is lost and nothing is asked', (_, mine, theirs, expected) => {
  const { record: found, collisions } = reconciled(base, record(...mine), record(...theirs));
  expect(texts(found)).toEqual(expected);
  expect(collisions).toEqual([]);
});

test('neighbouring fields that one each changed are joined', () => {
  const mine = record('100 A', '245 mine', '300 P', '500 N');
  const theirs = record('100 A', '245 T', '300 theirs', '500 theirs');
  expect(texts(reconciled(base, mine, theirs).record)).toEqual([
    '100 A',
    '245 mine',
    '300 theirs',
    '500 theirs',
  ]);
  expect(
    reconciled(
      base,
      record('100 A', '245 mine', '300 P', '500 N'),
      record('100 A', '245 theirs', '300 theirs', '500 N'),
    ).collisions,
  ).toHaveLength(1);
});

test('fields that both changed are asked for one by one', () => {
  const mine = record('100 mine', '245 T', '300 mine', '500 N');
  const theirs = record('100 theirs', '245 T', '300 theirs', '500 their note');
  expect(reconciled(base, mine, theirs).collisions).toHaveLength(2);
  expect(texts(reconciled(base, mine, theirs).record)).toEqual([
    '100 theirs',
    '245 T',
    '300 theirs',
    '500 their note',
  ]);
  expect(texts(reconciled(base, mine, theirs, ['mine', 'theirs']).record)).toEqual([
    '100 mine',
    '245 T',
    '300 theirs',
    '500 their note',
  ]);
});

test('a leader that both changed is asked for like a field', () => {
  const [mine, theirs] = [
    { ...base, leader: '00000cam a2200000 i 4500' },
    { ...base, leader: '00000nam a2200000 a 4500' },
  ];
  expect(reconciled(base, mine, theirs).collisions).toHaveLength(1);
  expect(reconciled(base, mine, theirs, ['mine']).record.leader).toBe(mine.leader);
  expect(reconciled(base, base, theirs).record.leader).toBe(theirs.leader);
});

test('of one that changed nothing the other stands; both ways round the same places are asked for', () => {
  const some = fc.array(fc.constantFrom('100 a', '245 b', '300 c', '500 d', '650 e'), { maxLength: 6 });
  fc.assert(
    fc.property(some, some, some, (a, b, c) => {
      const [was, mine, theirs] = [record(...a), record(...b), record(...c)];
      expect(reconciled(was, was, theirs).record).toEqual(theirs);
      expect(reconciled(was, mine, was).record).toEqual(mine);
      expect(reconciled(was, mine, mine)).toEqual({ record: mine, collisions: [] });
      const { collisions } = reconciled(was, mine, theirs);
      expect(reconciled(was, theirs, mine).collisions).toHaveLength(collisions.length);
      const words = new Set<string>([...b, ...c, ...a]);
      for (const t of texts(
        reconciled(
          was,
          mine,
          theirs,
          collisions.map(() => 'mine'),
        ).record,
      ))
        expect(words.has(t)).toBe(true);
    }),
  );
});
