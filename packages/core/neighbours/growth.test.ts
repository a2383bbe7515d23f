import fc from 'fast-check';
import { briefRecord } from '../editing';
import { DEFAULT_HOUSE } from '../house';
import { controlValue, dataFields, field, fieldText, firstValue, type MarcRecord } from '../marc';
import {
  growthOf,
  grownRecord,
  inRounds,
  refusedMarks,
  soughtFor,
  sourceMarks,
  tasteOf,
  type Sought,
} from '.';
import type { BookRecord } from './book-list';

const taste = tasteOf(DEFAULT_HOUSE);
const brief: MarcRecord = (() => {
  const made = briefRecord(
    {
      title: 'The eels of Osmere',
      name: 'Fenn, Ada',
      isbn: '9780306406157',
      class: '639.2',
      year: '1998',
      language: 'eng',
    },
    '2026-03-04',
  );
  return {
    ...made,
    fields: [{ tag: '001', value: '812' }, ...made.fields, field('590', '  ', 'a', 'Bought at the fair.')],
  };
})();
const full = (...change: (readonly [tag: string, field: ReturnType<typeof field> | null])[]): MarcRecord => {
  const fields: MarcRecord['fields'] = [
    { tag: '008', value: '240101s1998    enka   g      000 0 eng d' },
    field('020', '  ', 'a', '0306406152'),
    field('035', '  ', 'a', '(NLFens)nlf77'),
    field('040', '  ', 'a', 'NLFens', 'b', 'eng', 'c', 'NLFens'),
    field('100', '1 ', 'a', 'Fenn, Ada,', 'e', 'author.'),
    field('245', '14', 'a', 'The eels of Osmere :', 'b', 'a life /', 'c', 'Ada Fenn.'),
    field('264', ' 1', 'a', 'Leeds :', 'b', 'Withy Press,', 'c', '1998.'),
    field('300', '  ', 'a', '212 pages :', 'b', 'illustrations ;', 'c', '22 cm'),
    field('520', '  ', 'a', 'An account of eels.'),
    field('650', ' 0', 'a', 'Eels.'),
    field('650', ' 0', 'a', 'Fens.'),
  ];
  return {
    leader: '00000cam a2200000 i 4500',
    fields: fields.flatMap((f) => {
      const by = change.find(([tag]) => tag === f.tag);
      return by ? (by[1] ? [by[1]] : []) : [f];
    }),
  };
};
const at = (marc: MarcRecord, more: Partial<BookRecord> = {}, id = 1): BookRecord => ({
  ...{ marc, errors: 0, warnings: 0 },
  neighbour: { id, name: `Library ${id}`, trust: 4, materials: [] },
  ...more,
});
const none = new Set<string>();

test.each<[string, BookRecord[], boolean | null, RegExp]>([
  ['number and title agree', [at(full())], true, /^Library 1: the same ISBN 9780306406157\.$/],
  [
    'an edition that the brief one does not name',
    [at({ ...full(), fields: [...full().fields, field('250', '  ', 'a', '2nd edition.')] })],
    true,
    /same ISBN/,
  ],
  ['the best of two of one edition', [at(full(['520', null]), {}, 2), at(full())], true, /^Library 1: /],
  [
    'another title under the number',
    [at(full(['245', field('245', '10', 'a', 'Cooking for one.')]))],
    false,
    /title is not/,
  ],
  [
    'another name under the number',
    [
      at(
        full(
          ['100', field('100', '1 ', 'a', 'Holt, Ben.')],
          ['245', field('245', '14', 'a', 'The eels of Osmere.')],
        ),
      ),
    ],
    false,
    /Title or name/,
  ],
  [
    'another year under the number',
    [at(full(['008', { ...field('008', '  '), tag: '260' }], ['264', field('264', ' 1', 'c', '2015.')]))],
    false,
    /1998|2015/,
  ],
  ['errors in it', [at(full(), { errors: 2 })], false, /2 errors/],
  [
    'an electronic one under the number',
    [at(full(['300', field('300', '  ', 'a', '1 online resource')]))],
    false,
    /One is|Title/,
  ],
  ['the title only', [at(full(['020', null]))], false, /No number says/],
  [
    'another book',
    [at(full(['020', null], ['245', field('245', '10', 'a', 'Cooking for one.')]))],
    null,
    /^$/,
  ],
  ['another brief record', [at({ ...full(), leader: '00000nam a22000003i 4500' })], null, /^$/],
  ['one that says no more', [at({ ...brief, leader: '00000nam a2200000 i 4500' })], null, /^$/],
  ['nothing', [], null, /^$/],
])('what is found for a brief record: %s', (_, found, isSure, reason) => {
  const growth = growthOf(brief, found, taste, none);
  expect(growth?.isSure ?? null).toBe(isSure);
  expect(growth?.reason ?? '').toMatch(reason);
});

test('two editions with one number are looked at by a person', () => {
  const other = full(
    ['245', field('245', '14', 'a', 'The eels of Osmere.')],
    ['300', field('300', '  ', 'a', '399 pages')],
    ['250', null],
  );
  const second = { ...other, fields: [...other.fields, field('250', '  ', 'a', '2nd edition.')] };
  const third = { ...other, fields: [...other.fields, field('250', '  ', 'a', '3rd edition.')] };
  const growth = growthOf(brief, [at(second), at(third, {}, 2)], taste, none);
  expect(growth).toMatchObject({ isSure: false });
});

test('one that was refused is not offered again, with its number or without one', () => {
  const bare = full(['035', null]);
  for (const marc of [full(), bare]) {
    expect(growthOf(brief, [at(marc)], taste, new Set(refusedMarks(marc)))).toBeNull();
    // As it stands in the catalogue after it was taken: what was undone is refused too.
    const taken = grownRecord(brief, marc, DEFAULT_HOUSE);
    expect(growthOf(brief, [at(marc)], taste, new Set(refusedMarks(taken)))).toBeNull();
  }
  expect(sourceMarks(full())).toEqual(['(NLFens)nlf77']);
  expect(
    growthOf(brief, [at(full()), at(bare, {}, 2)], taste, new Set(['(NLFens)nlf77']))?.best.neighbour.id,
  ).toBe(2);
});

test('a brief record that grows keeps its number, its day, protected fields, numbers and what the full one has not', () => {
  const ours = {
    ...brief,
    fields: [
      ...brief.fields,
      field('020', '  ', 'a', '9781402894626'),
      field('856', '42', 'u', 'https://example.org/'),
    ],
  };
  const grown = grownRecord(ours, full(), DEFAULT_HOUSE);
  expect(controlValue(grown, '001')).toBe('812');
  expect(grown.leader[17]).toBe(' ');
  expect(controlValue(grown, '008')).toBe('260304s1998    enka   g      000 0 eng d');
  expect(dataFields(grown, '020').map((f) => f.subfields[0]!.value)).toEqual(['0306406152', '9781402894626']);
  expect(firstValue(grown, '082', 'a')).toBe('639.2');
  expect(firstValue(grown, '590', 'a')).toBe('Bought at the fair.');
  expect(firstValue(grown, '856', 'u')).toBe('https://example.org/');
  expect(dataFields(grown, /^(100|245|264)$/).map(fieldText)).toEqual(
    dataFields(full(), /^(100|245|264)$/).map(fieldText),
  );
  expect(dataFields(grown, '035').map((f) => f.subfields[0]!.value)).toEqual(['(NLFens)nlf77']);
  const older = { ...full(['264', null]) };
  const of260 = {
    ...older,
    fields: [...older.fields, field('260', '  ', 'b', 'Withy Press,', 'c', '1998.')],
  };
  expect(dataFields(grownRecord(ours, of260, DEFAULT_HOUSE), /^26[04]$/).map((f) => f.tag)).toEqual(['260']);
});

test('growing twice is growing once, and nothing of the full record is lost', () => {
  const tag = fc.constantFrom('020', '082', '100', '245', '260', '264', '500', '590', '650', '856');
  const fields = fc.array(fc.tuple(tag, fc.string({ minLength: 1, maxLength: 8 })), { maxLength: 8 });
  const made = (parts: [string, string][], leader: string): MarcRecord => ({
    leader,
    fields: parts.map(([t, text]) => field(t, '  ', 'a', text)),
  });
  fc.assert(
    fc.property(fields, fields, (a, b) => {
      const ours = made(a, '00000nam a22000003i 4500');
      const theirs = made(b, '00000nam a2200000 i 4500');
      const grown = grownRecord(ours, theirs, DEFAULT_HOUSE);
      const texts = grown.fields.map(fieldText);
      for (const f of theirs.fields) if (!/^(59.|9..)$/.test(f.tag)) expect(texts).toContain(fieldText(f));
      for (const f of ours.fields) if (f.tag === '590') expect(texts).toContain(fieldText(f));
      expect(grownRecord(grown, theirs, DEFAULT_HOUSE).fields.length).toBeLessThanOrEqual(
        grown.fields.length,
      );
    }),
  );
});

test.each<[string, MarcRecord, Sought[]]>([
  ['its ISBN', brief, [{ by: 'isbn', isbn13: '9780306406157', isbn10: '0306406152' }]],
  [
    'the words where it has no number',
    { ...brief, fields: brief.fields.filter((f) => f.tag !== '020') },
    [{ by: 'words', title: 'eels of osmere', name: 'fenn' }],
  ],
  ['nothing where it says nothing', { leader: brief.leader, fields: [] }, []],
  [
    'its ISSN and LCCN',
    {
      leader: brief.leader,
      fields: [field('022', '  ', 'a', '0317-8471'), field('010', '  ', 'a', '   85153773 ')],
    },
    [
      { by: 'issn', number: '0317-8471' },
      { by: 'lccn', number: '85153773' },
    ],
  ],
])('what the neighbours are asked for a record: %s', (_, record, sought) => {
  expect(soughtFor(record)).toEqual(sought);
});

test('neighbours of one place are asked together, the next ones after them', () => {
  const n = (id: number, order: number) => ({ id, neighbour: { order } });
  const all = [n(1, 2), n(2, 1), n(3, 2), n(4, 5)];
  expect(inRounds(all, false).map((r) => r.map((x) => x.id))).toEqual([[2], [1, 3], [4]]);
  expect(inRounds(all, true).map((r) => r.map((x) => x.id))).toEqual([[2, 1, 3, 4]]);
  expect(inRounds([], false)).toEqual([]);
});
