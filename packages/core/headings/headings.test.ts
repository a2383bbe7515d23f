import fc from 'fast-check';
import { field, fieldText, isData, type DataField, type MarcRecord } from '../marc';
import { withoutMarks } from '../text';
import { makeLibrary } from '../../../demo/library';
import {
  completedField,
  headingFrom,
  headingIn,
  headingKey,
  headingsOf,
  headingText,
  identityOf,
  incomingAuthority,
  isEstablished,
  keyOfHeading,
  lookAlikeGroups,
  lookAlikes,
  mergePlan,
  newAuthority,
  normalText,
  seeFroms,
  unnamedHeading,
  vocabularyOfNew,
  withSubfields,
  WrongForm,
  type Heading,
  formText,
} from '.';

const name = (a: string, d?: string): DataField =>
  d ? field('100', '1 ', 'a', a, 'd', d) : field('100', '1 ', 'a', a);
const heading = (a: string, d?: string): Heading => headingFrom(headingIn(name(a, d))!);

describe('normal form (PCC: Authority File Comparison Rules, NACO normalization)', () => {
  test.each([
    ['marks and case do not count', 'Brontë, Émile', 'BRONTE, Emile'],
    ['punctuation is a blank', 'Smith-Jones, A.B.', 'Smith Jones, A. B.'],
    ['apostrophes are nothing', 'O’Brien, T.', 'OBrien, T'],
    ['the letter Ł is L', 'Łozowski, B.', 'Lozowski, B'],
    ['Æ is AE', 'Læssøe, J.', 'Laessoe, J'],
  ])('%s', (_, a, b) => expect(keyOfHeading(heading(a))).toBe(keyOfHeading(heading(b))));
  test.each([
    ['the first comma counts', 'James, Henry', 'James Henry'],
    ['numbers count', 'Henry, 2', 'Henry, 3'],
  ])('%s', (_, a, b) =>
    expect(headingKey([{ code: 'a', value: a }])).not.toBe(headingKey([{ code: 'a', value: b }])),
  );
  test('letters without marks are brought to it as all others are', () =>
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."ab Z9'’.,-[]#&+♭", 'é', 'ß', 'ı', 'ﬁ') }), (text) =>
        expect(normalText(text)).toBe(
          withoutMarks(text)
            .toUpperCase()
            .replace(/['’ʹʻʼ[\]]/g, '')
            .replace(/[^\p{L}\p{N}#♭&+]+/gu, ' ')
            .trim(),
        ),
      ),
      { numRuns: 1000 },
    ));
  test('the punctuation of the field is not the name’s', () => {
    expect(
      keyOfHeading(
        headingFrom(headingIn(field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1880-1950,', 'e', 'author.'))!),
      ),
    ).toBe(keyOfHeading(heading('Reedman, Amos', '1880-1950')));
  });
});

test('the demo library’s planted pairs are found, and hardly anything else', () => {
  const library = makeLibrary();
  const pairs = lookAlikes(library.headings, () => false);
  const surnames = (id: number) => headingText(library.headings.find((h) => h.id === id)!.heading);
  expect(library.authorsTwice).toBe(40);
  expect(lookAlikeGroups(pairs).length).toBeGreaterThanOrEqual(39);
  expect(lookAlikeGroups(pairs).length).toBeLessThanOrEqual(44);
  for (const p of pairs) expect(surnames(p.a).slice(0, 3)).toBe(surnames(p.b).slice(0, 3));
  expect(lookAlikes(library.headings, () => true)).toEqual([]);
});

describe('merging', () => {
  const kept = { id: 1, version: 3, value: heading('Reedman, Amos', '1880-1950') };
  const lost = { id: 2, version: 1, value: heading('Reedman, A.') };
  const record = (id: number, ...fields: DataField[]) => ({
    id,
    version: 1,
    value: { leader: '00000nam a2200000 i 4500', fields } as MarcRecord,
  });
  const plan = (...records: ReturnType<typeof record>[]) => mergePlan(kept, [lost], records);
  const after = (p: ReturnType<typeof plan>, id: number) =>
    (p.changes.find((c) => c.kind === 'record' && c.id === id)?.after as MarcRecord | undefined)?.fields;

  test('records carry the kept form; what follows the name stays with its punctuation', () => {
    const p = plan(
      record(
        7,
        field('100', '1 ', 'a', 'Reedman, A.,', 'e', 'author.'),
        field('600', '10', 'a', 'Reedman, A.', 'x', 'Tools.'),
      ),
      record(8, field('100', '1 ', 'a', 'Else, B.')),
    );
    expect(after(p, 7)).toEqual([
      field('100', '1 ', 'a', 'Reedman, Amos', 'd', '1880-1950,', 'e', 'author.'),
      field('600', '10', 'a', 'Reedman, Amos', 'd', '1880-1950', 'x', 'Tools.'),
    ]);
    expect(after(p, 8)).toBeUndefined();
  });
  test('the lost form stands as see-from, its number leads to the kept', () => {
    const p = plan();
    const [keptAfter, lostAfter] = [1, 2].map(
      (id) => p.changes.find((c) => c.kind === 'heading' && c.id === id)!.after as Heading,
    );
    expect(seeFroms(keptAfter!)).toEqual([field('400', '1 ', 'a', 'Reedman, A.')]);
    expect(lostAfter!.mergedInto).toBe(1);
  });
  test('a record with both forms keeps one field, and says so', () => {
    const p = plan(
      record(
        9,
        field('700', '1 ', 'a', 'Reedman, Amos', 'd', '1880-1950'),
        field('700', '1 ', 'a', 'Reedman, A.'),
      ),
    );
    expect(after(p, 9)).toEqual([field('700', '1 ', 'a', 'Reedman, Amos', 'd', '1880-1950')]);
    expect(p.notes).toEqual([{ record: 9, message: expect.stringContaining('both forms') as string }]);
  });
  test('after a merge no record carries the lost form', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('Reedman, A.', 'Reedman, A', 'Else, B.', 'Reedman, Amos'), {
          minLength: 1,
          maxLength: 6,
        }),
        (names) => {
          const p = plan(record(5, ...names.map((n) => field('700', '1 ', 'a', n))));
          const next = after(p, 5) ?? names.map((n) => field('700', '1 ', 'a', n));
          expect(headingsOf({ leader: '', fields: next }).map((h) => h.key)).not.toContain(
            keyOfHeading(lost.value),
          );
        },
      ),
    );
  });
});

test('subdivisions of a heading stand behind dashes', () =>
  expect(
    formText(field('150', '  ', 'a', 'Basket making', 'z', 'Netherlode', 'x', 'History', 'w', 'nne')),
  ).toBe('Basket making — Netherlode — History'));

test.each([
  ['100 1# $aFen, H$eauthor.', '100 1# $aFen, Hob,$d1901-1980', '100 1# $aFen, Hob,$d1901-1980,$eauthor.'],
  ['700 1# $aFen', '100 1# $aFen, Hob', '700 1# $aFen, Hob'],
  ['700 1# $aFen, H.$tEels.', '100 1# $aFen, Hob', '700 1# $aFen, Hob.$tEels.'],
  ['650 #0 $aBask.', '150 ## $aBasket making$zNetherlode', '650 #0 $aBasket making$zNetherlode.'],
  ['600 10 $aFen', '100 0# $aHob of the Fen', '600 00 $aHob of the Fen'],
])('%s completed by %s', (typed, kept, completed) => {
  const read = (line: string) => {
    const [, tag, inds, text] = /^(...) (..) (.*)$/.exec(line)!;
    const pairs = text!
      .split('$')
      .slice(1)
      .flatMap((s) => [s[0]!, s.slice(1)]);
    return field(tag!, inds!.replaceAll('#', ' '), ...pairs);
  };
  const f = completedField(read(typed), read(kept), {
    leader: '00000nam a2200000 i 4500',
    fields: [read(typed)],
  });
  expect(fieldText(f)).toBe(completed);
});

describe('a form as it is typed', () => {
  test.each([
    ['Reedman, Amos, 1880-1950', '$aReedman, Amos,$d1880-1950'],
    ['Reedman, Amos, 1946-', '$aReedman, Amos,$d1946-'],
    ['Reedman, Amos, 1880-1950.', '$aReedman, Amos,$d1880-1950'],
    ['Wren, Ada, approximately 1620-1684', '$aWren, Ada,$dapproximately 1620-1684'],
    ['Wren, Ada, active 1790', '$aWren, Ada,$dactive 1790'],
    ['Wren, Ada', 'Wren, Ada'],
    ['Charles V', 'Charles V'],
    ['$aWren, Ada, 1880-1950', '$aWren, Ada, 1880-1950'],
  ])('%s', (typed, line) => expect(withSubfields('personal', typed)).toBe(line));
  test('dates are parts of names of persons only; subdivisions are named', () => {
    expect(withSubfields('corporate', 'Wick Press, 1946-')).toBe('Wick Press, 1946-');
    expect(() => withSubfields('topic', 'Baskets — Osmere')).toThrow(WrongForm);
    expect(() => withSubfields('place', 'Osmere--History')).toThrow('$x, $y, $z or $v');
    expect(withSubfields('topic', 'Basket-making')).toBe('Basket-making');
  });
});

test.each([
  ['personal', '', 'naf'],
  ['topic', '', 'lcsh'],
  ['topic', 'mesh', 'mesh'],
  ['place', 'osm', 'osm'],
  ['corporate', 'mesh', 'naf'],
] as const)('a new %s in “%s” says its vocabulary in a record of 40 positions', (kind, said, vocabulary) => {
  const of = vocabularyOfNew(kind, said);
  expect(of).toBe(vocabulary);
  const own = unnamedHeading(kind, of).marc.fields.find(
    (f): f is DataField => isData(f) && f.tag[0] === '1',
  )!;
  const form = { ...own, subfields: [{ code: 'a', value: 'Osmere' }] };
  const made = newAuthority({ kind, vocabulary: of, form, seeFroms: [], source: 'Seen', on: '2026-11-30' });
  expect(identityOf(made)).toEqual({ kind, vocabulary, key: keyOfHeading(made) });
  const fixed = made.marc.fields.find((f) => f.tag === '008');
  expect(fixed && !isData(fixed) && [fixed.value.length, fixed.value.slice(0, 6)]).toEqual([40, '261130']);
  expect([isEstablished(made), incomingAuthority(made.marc).problem]).toEqual([true, null]);
});
