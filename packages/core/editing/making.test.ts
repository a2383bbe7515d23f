import { expect, test } from '@jest/globals';
import { checkRecord } from '../checks';
import { LENGTH_007, materialOf, readPositions } from '../format';
import { DEFAULT_HOUSE } from '../house';
import { compareRecords, controlValue, field, fieldText, lineOf, withField, type MarcRecord } from '../marc';
import {
  applyTransaction,
  begunRecord,
  briefRecord,
  emptyFixedField,
  fieldBroughtBack,
  fieldToFill,
  filledFromText,
  fixedCategories,
  isBriefRecord,
  lackingOf,
  pastedFields,
  promptsOf,
  quickField,
  recordLike,
  replaceText,
  starterField,
  starterLine,
  STARTERS,
  withLeader,
  withPartner,
} from '.';

const DAY = '2026-11-28';
const lines = (record: MarcRecord) => record.fields.map(fieldText);
const BOOK_LEADER = '00000nam a2200000 i 4500';

test.each(Object.entries(STARTERS))(
  'the starter %s begins a record that no check finds wrong',
  (_, starter) => {
    const record = begunRecord(starter, DAY, 'eng');
    const fixed = controlValue(record, '008')!;
    expect([record.leader.length, fixed.length, fixed.slice(0, 6)]).toEqual([24, 40, '261128']);
    for (const f of record.fields)
      if (f.tag === '007' && 'value' in f) expect(LENGTH_007[f.value[0]!]).toContain(f.value.length);
    const wrong = checkRecord(record, DEFAULT_HOUSE).filter((f) => f.severity === 'error');
    // What is not typed yet is missing; nothing that stands there is wrong.
    expect(wrong.map((f) => f.rule).filter((r) => r !== 'title-missing' && r !== 'date-missing')).toEqual([]);
    const undefinedPositions = readPositions('008', fixed, record.leader).filter(
      (p) => p.meaning === undefined && !/^(Date|Place|Running)/.test(p.name),
    );
    expect(undefinedPositions).toEqual([]);
  },
);

test('starters are of nine kinds of material, each with a title to be typed', () => {
  expect(Object.keys(STARTERS)).toEqual([
    'book',
    'ebook',
    'serial',
    'video',
    'sound',
    'map',
    'kit',
    'pattern',
    'thesis',
  ]);
  for (const s of Object.values(STARTERS)) expect(lackingOf(s, begunRecord(s, DAY, 'eng'))).toContain('245');
});

test('what a starter asks for goes as it is typed, and stands where its tag belongs', () => {
  const { book } = STARTERS;
  let record = begunRecord(book!, DAY, 'eng');
  expect(promptsOf(book!, record)[0]).toMatchObject({ asked: { tag: '020', wanted: 'usual' } });
  record = withField(record, field('245', '10', 'a', 'Eels /', 'c', 'Hob Fen.'));
  expect(promptsOf(book!, record).map((p) => p.asked.tag)).not.toContain('245');
  expect(lackingOf(book!, record)).toEqual(['264', '300']);
  const [first] = promptsOf(book!, record);
  expect(fieldToFill(first!.asked)).toEqual({
    tag: '020',
    ind1: ' ',
    ind2: ' ',
    subfields: [{ code: 'a', value: '' }],
  });
});

test('a starter written in lines is read back', () => {
  for (const { fields } of Object.values(STARTERS))
    for (const f of fields) expect(starterField(starterLine(f))).toEqual(f);
  expect(starterField('245 10 Title')).toBeNull();
  expect(starterField('008 ## $a x')).toBeNull();
});

test('008 of a new record follows what is typed, and keeps what was coded by hand', () => {
  const empty = begunRecord(STARTERS.book!, DAY, 'eng');
  const typed = withField(empty, field('264', ' 1', 'a', 'Netherlode :', 'b', 'Willow,', 'c', '[2019]'));
  const dated = filledFromText(empty, typed);
  expect(controlValue(dated, '008')!.slice(6, 15)).toBe('s2019    ');
  const both = withField(dated, field('264', ' 4', 'c', '©2018'));
  expect(controlValue(filledFromText(dated, both), '008')!.slice(6, 15)).toBe('t20192018');
  const more = withField(
    withField(dated, field('300', '  ', 'a', '90 pages :', 'b', 'illustrations, maps ;')),
    field('041', '1 ', 'a', 'dut', 'h', 'ger'),
  );
  const filled = filledFromText(dated, more);
  expect(controlValue(filled, '008')!.slice(18, 22)).toBe('ab  ');
  expect(controlValue(filled, '008')!.slice(35, 38)).toBe('dut');
  // Coded by hand, and the texts say nothing new.
  const byHand = {
    ...filled,
    fields: filled.fields.map((f) =>
      f.tag === '008' && 'value' in f ? { ...f, value: `${f.value.slice(0, 35)}fry d` } : f,
    ),
  };
  expect(filledFromText(byHand, withField(byHand, field('500', '  ', 'a', 'A note.')))).toMatchObject({
    fields: expect.arrayContaining([{ tag: '008', value: controlValue(byHand, '008') }]),
  });
});

test('another material keeps what carries over of 008 and says what is lost (MARC 21, 008)', () => {
  const fixed = '261128s2019    xx ab  j      100 1aeng d';
  const book: MarcRecord = { leader: BOOK_LEADER, fields: [{ tag: '008', value: fixed }] };
  const { record, lost } = withLeader(book, '00000ngm a2200000 i 4500');
  expect(materialOf(record.leader)).toBe('Visual Materials');
  const after = controlValue(record, '008')!;
  expect([after.length, after[22], after.slice(0, 18), after.slice(35)]).toEqual([
    40,
    'j',
    fixed.slice(0, 18),
    'eng d',
  ]);
  expect(lost.map((p) => [p.name, p.value])).toEqual([
    ['Illustrations', 'ab  '],
    ['Conference publication', '1'],
    ['Literary form', '1'],
    ['Biography', 'a'],
  ]);
  expect(withLeader(record, `${record.leader.slice(0, 17)}3${record.leader.slice(18)}`).record.fields).toBe(
    record.fields,
  );
});

test.each(['a', 'c', 'd', 'e', 'g', 'i', 'k', 'm', 'o', 'p', 'r', 't'])(
  'an empty 008 of type %s has defined codes only',
  (type) => {
    const leader = `00000n${type}m a2200000 i 4500`;
    const value = emptyFixedField('008', leader);
    expect(value).toHaveLength(40);
    for (const p of readPositions('008', value, leader))
      if (!/^(Date|Place|Language)/.test(p.name))
        expect([p.name, p.value, typeof p.meaning]).toEqual([p.name, p.value, 'string']);
  },
);

test('007 and 006 of every category have their lengths', () => {
  for (const { code } of fixedCategories('007')) {
    expect(LENGTH_007[code]).toContain(emptyFixedField('007', BOOK_LEADER, code).length);
  }
  expect(fixedCategories('006').length).toBeGreaterThan(10);
  for (const { code } of fixedCategories('006'))
    expect(emptyFixedField('006', BOOK_LEADER, code)).toHaveLength(18);
});

test('a record like another one takes its description and none of its numbers', () => {
  const record: MarcRecord = {
    leader: '00000cam a2200000 i 4500',
    fields: [
      { tag: '001', value: 'w1' },
      { tag: '008', value: '040110s2020    xx            000 0 eng d' },
      field('020', '  ', 'a', '9780306406157'),
      field('035', '  ', 'a', '(W)1'),
      field('245', '10', 'a', 'Eels.'),
      field('852', '  ', 'b', 'MR'),
      field('990', '  ', 'a', 'ours'),
    ],
  };
  const like = recordLike(record, DAY);
  expect(like.leader[5]).toBe('n');
  expect(lines(like)).toEqual(['008    261128s2020    xx            000 0 eng d', '245 10 $aEels.']);
});

test('a brief record is proper MARC and says that it is brief', () => {
  const record = briefRecord(
    {
      title: 'The eels of Osmere',
      name: 'Fen, Hob',
      isbn: '9780306406157',
      class: '639.1',
      year: '2019',
      language: 'eng',
    },
    DAY,
  );
  expect(isBriefRecord(record)).toBe(true);
  expect(lines(record)).toEqual([
    expect.stringMatching(/^008 {4}261128s2019 {4}xx .{17}eng d$/),
    '020 ## $a9780306406157',
    '082 04 $a639.1',
    '100 1# $aFen, Hob.',
    '245 14 $aThe eels of Osmere.',
    '264 #1 $c2019.',
  ]);
  expect(checkRecord(record, DEFAULT_HOUSE).filter((f) => f.severity === 'error')).toEqual([]);
  const bare = briefRecord({ title: 'Eels', name: '', isbn: '', class: '', year: '', language: 'eng' }, DAY);
  expect(lines(bare).slice(1)).toEqual(['245 00 $aEels.']);
  expect(checkRecord(bare, DEFAULT_HOUSE).filter((f) => f.severity === 'error')).toEqual([]);
});

test.each([
  ['245 10 $aThe eels /$cHob Fen.', '245 10 $aThe eels /$cHob Fen.'],
  ['245 10 $a The eels / $c Hob Fen.', '245 10 $aThe eels /$cHob Fen.'],
  ['245 10 The eels / Hob Fen.', '245 10 $aThe eels / Hob Fen.'],
  ['500 Includes eels.', '500 ## $aIncludes eels.'],
  ['500    Includes eels.', '500 ## $aIncludes eels.'],
  ['500 12 eels are shown.', '500 ## $a12 eels are shown.'],
  ['650 _0 ‡aEels‡zOsmere.', '650 #0 $aEels$zOsmere.'],
  ['650  0 |aEels|zOsmere.', '650 #0 $aEels$zOsmere.'],
  ['020 ## \u001fa9780306406157\u001fc$$12', '020 ## $a9780306406157$c$$12'],
  ['500 ## $aOver two\n       lines.', '500 ## $aOver two lines.'],
  ['001    w1', '001    w1'],
  ['008    261128s2019', '008    261128s2019'],
])('pasted as %j', (text, line) => {
  const { fields, problems } = pastedFields(text);
  expect([fields.map(lineOf), problems]).toEqual([[line], []]);
});

test('what cannot be pasted is said, and nothing of it runs or is cut in silence', () => {
  const { fields, problems } = pastedFields(
    'some words\nLDR    00000nam\n245 10 $aEels<script>alert(1)</script>\n500\n500 ## $a' +
      'x'.repeat(100_000),
  );
  expect(fields.map(lineOf)).toEqual(['245 10 $aEels<script>alert(1)</script>']);
  expect(problems).toHaveLength(4);
  const many = pastedFields(Array.from({ length: 2500 }, (_, i) => `500 ## $aNote ${i}`).join('\n'));
  expect([many.fields.length, many.problems]).toEqual([2000, ['Only the first 2,000 fields were taken.']]);
});

test('what was copied as lines is pasted as it was', () => {
  const record = begunRecord(STARTERS.video!, DAY, 'eng');
  expect(pastedFields(record.fields.map(lineOf).join('\n')).fields).toEqual(record.fields);
});

test('a partner in another script is linked both ways under the next number (MARC 21, appendix A)', () => {
  const record: MarcRecord = {
    leader: BOOK_LEADER,
    fields: [
      field('100', '1 ', '6', '880-01', 'a', 'Minase, Hatsu.'),
      field('245', '10', 'a', 'Takekago.'),
      field('880', '1 ', '6', '100-01/$1', 'a', '水無瀬, はつ.'),
    ],
  };
  const made = withPartner(record, 1)!;
  expect(lines(applyTransaction(record, made.transaction))).toEqual([
    '100 1# $6880-01$aMinase, Hatsu.',
    '245 10 $6880-02$aTakekago.',
    '880 1# $6100-01/$1$a水無瀬, はつ.',
    '880 10 $6245-02$aTakekago.',
  ]);
  expect([withPartner(record, 0), withPartner(record, 2)]).toEqual([null, null]);
});

test('a text is replaced in subfields, and never in codes or links', () => {
  const record: MarcRecord = {
    leader: BOOK_LEADER,
    fields: [
      { tag: '008', value: 'eels' },
      field('245', '10', '6', '880-01', 'a', 'Eels and EELS', 'c', 'a.c'),
      field('500', '  ', 'a', 'eels'),
    ],
  };
  const all = replaceText(record, { find: 'eels', by: 'otters' });
  expect([all.count, lines(applyTransaction(record, all.transaction))]).toEqual([
    3,
    ['008    eels', '245 10 $6880-01$aotters and otters$ca.c', '500 ## $aotters'],
  ]);
  expect(replaceText(record, { find: 'eels', by: 'x', matchCase: true }).count).toBe(1);
  expect(replaceText(record, { find: 'eels', by: 'x', among: [2] }).count).toBe(1);
  expect(replaceText(record, { find: 'a.', by: '$&' }).count).toBe(1);
  expect(replaceText(record, { find: '', by: 'x' }).count).toBe(0);
});

test('quick additions are written as the field they belong in', () => {
  expect(quickField('link', { u: ' https://osmere.example/eels ', y: 'Eels' })).toEqual(
    field('856', '42', 'u', 'https://osmere.example/eels', 'y', 'Eels'),
  );
  expect(quickField('summary', { a: '  ' })).toBeNull();
});

test('a field is brought back from an older version, and nothing else', () => {
  const older: MarcRecord = {
    leader: BOOK_LEADER,
    fields: [
      field('245', '10', 'a', 'Eels.'),
      field('500', '  ', 'a', 'Lost.'),
      field('650', ' 0', 'a', 'Eels.'),
    ],
  };
  const now: MarcRecord = {
    leader: '00000cam a2200000 i 4500',
    fields: [
      field('245', '10', 'a', 'Otters.'),
      field('520', '  ', 'a', 'New.'),
      field('650', ' 0', 'a', 'Eels.'),
    ],
  };
  const back = (tag: string) => {
    const pair = compareRecords(older, now).find(
      (p) => p.change !== 'same' && (p.change === 'changed' ? p.after : p.field).tag === tag,
    )!;
    return fieldBroughtBack(now, older, pair);
  };
  expect(lines(back('245'))).toEqual(['245 10 $aEels.', '520 ## $aNew.', '650 #0 $aEels.']);
  expect(lines(back('500'))).toEqual([
    '245 10 $aOtters.',
    '500 ## $aLost.',
    '520 ## $aNew.',
    '650 #0 $aEels.',
  ]);
  expect(lines(back('520'))).toEqual(['245 10 $aOtters.', '650 #0 $aEels.']);
  expect(back('LDR')).toEqual({ ...now, leader: older.leader });
});
