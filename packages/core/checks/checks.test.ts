import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { DEFAULT_HOUSE } from '../house';
import { RULES_14 } from '../testing/barcode-rules';
import { applyEdits, field, type Field, type MarcRecord } from '../marc';
import { anyRecord } from '../testing/records';
import { viewOf } from './take-apart';
import { CHECKS, checkRecord, initialArticle } from '.';

const fixed = (
  year: string,
  language: string,
  more: Partial<{ type: string; second: string; country: string; form: string; ill: string }> = {},
) =>
  `120508${more.type ?? 's'}${year}${more.second ?? '    '}${more.country ?? 'enk'}${(more.ill ?? 'a').padEnd(4)} ${more.form ?? ' '}     000 0 ${language} d`;
const base: Field[] = [
  { tag: '001', value: 'w1' },
  { tag: '008', value: fixed('1990', 'eng') },
  field('082', '04', 'a', '746.41'),
  field('245', '00', 'a', 'Notes on eels /', 'c', 'A.'),
  field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', '1990.'),
  field('300', '  ', 'a', '20 pages :', 'b', 'illustrations ;', 'c', '24 cm'),
];
const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const house = {
  ...DEFAULT_HOUSE,
  barcodes: RULES_14,
  thesauri: ['lcsh', 'local'],
  codes: { branches: ['SEDGE'], locations: ['OPEN'] },
};
const found = (...fields: Field[]) => checkRecord(record(...fields), house).map((f) => f.rule);
const without = (...tags: string[]) => base.filter((f) => !tags.includes(f.tag));
const plus = (...fields: Field[]) => [...base, ...fields];
const instead = (...fields: Field[]) => [...without(...fields.map((f) => f.tag)), ...fields];
const f008 = (...args: Parameters<typeof fixed>) => ({ tag: '008', value: fixed(...args) });
const title = (...pairs: string[]) => field('245', '00', ...pairs);
const named = (...pairs: string[]) => [
  ...instead(field('245', '10', 'a', 'Notes on eels /', 'c', 'A.')),
  field('100', '1 ', ...pairs),
];

test('a good record has no finding', () => expect(checkRecord(record(...base), house)).toEqual([]));
test('neither has a good authority record, nor a good holdings record', () => {
  const authority: MarcRecord = {
    leader: '00000nz  a2200000n  4500',
    fields: [
      { tag: '001', value: 'h1' },
      { tag: '008', value: '120508n| azannaabn          |a aaa      ' },
      field('040', '  ', 'a', 'Wick', 'b', 'eng'),
      field('100', '1 ', 'a', 'Reedman, Amos,', 'd', '1931-2004'),
      field('400', '1 ', 'a', 'Redman, Amos,', 'd', '1931-2004'),
      field('670', '  ', 'a', 'Notes on eels, 1990.'),
    ],
  };
  const holdings: MarcRecord = {
    leader: '00000nx  a2200000zn 4500',
    fields: [
      { tag: '001', value: 'd1' },
      { tag: '004', value: 'w1' },
      { tag: '008', value: '1205080u    8   4001uu   0000000' },
      field('852', '1 ', 'b', 'SEDGE', 'c', 'OPEN', 'h', '746.41', 'p', '31204000517715'),
    ],
  };
  expect(checkRecord(authority, house)).toEqual([]);
  expect(checkRecord(holdings, house)).toEqual([]);
});

test.each<[string, Field[]]>([
  ['title-missing', without('245')],
  ['multiple-main-entries', plus(field('100', '1 ', 'a', 'A'), field('110', '2 ', 'a', 'B'))],
  ['repeated-field', plus(title('a', 'Again'))],
  ['repeated-field', plus(field('300', '  ', 'a', 'x', 'b', 'y', 'b', 'z'))],
  ['repeated-field', plus({ tag: '001', value: 'w2' })],
  ['undefined-tag', plus(field('333', '  ', 'a', 'x'))],
  ['undefined-tag', plus(field('300', '  ', 'a', 'x', 'k', 'y'))],
  ['indicator-value', plus(field('650', '90', 'a', 'Eels'))],
  ['indicator-value', plus(field('500', '1 ', 'a', 'Eels.'))],
  ['obsolete', plus(field('503', '  ', 'a', 'x'))],
  ['obsolete', instead(title('a', 'Notes /', 'd', 'x', 'c', 'A.'))],
  ['obsolete', instead(field('082', ' 4', 'a', '746.41'))],
  [
    'obsolete',
    [...instead(field('245', '10', 'a', 'Notes on eels /', 'c', 'A.')), field('100', '10', 'a', 'A.')],
  ],
  ['empty-subfield', plus(field('500', '  ', 'a', ' '))],
  ['empty-subfield', plus(field('500', '  '))],
  ['fixed-length', instead({ tag: '008', value: '900101s1990' })],
  ['fixed-length', plus({ tag: '007', value: 'co' })],
  ['fixed-codes', instead({ tag: '008', value: fixed('1990', 'eng', { ill: 'a7' }) })],
  ['fixed-codes', instead({ tag: '008', value: fixed('1990', 'eng', { type: 'h' }) })],
  [
    'fixed-codes',
    instead({
      tag: '008',
      value: `${fixed('1990', 'eng', {}).slice(0, 32)}1${fixed('1990', 'eng', {}).slice(33)}`,
    }),
  ],
  ['fixed-codes', plus({ tag: '006', value: 'm   x        d     ' })],
  ['linkage', plus(field('880', '1 ', '6', '100-01/(N', 'a', 'Ридман'))],
  ['linkage', plus(field('500', '  ', '6', '880-x', 'a', 'x.'))],
  ['linkage', plus(field('500', '  ', 'a', 'x.', '6', '880-00'))],
  ['double-encoded', plus(field('500', '  ', 'a', 'cafÃ©.'))],
  ['replacement-character', plus(field('500', '  ', 'a', 'caf\ufffd.'))],
  ['entity', plus(field('500', '  ', 'a', 'Reed &amp; sons.'))],
  ['entity', plus(field('500', '  ', 'a', 'caf&#233;.'))],
  ['control-character', plus(field('500', '  ', 'a', 'one\ttwo.'))],
  ['decomposed-letter', plus(field('500', '  ', 'a', 'cafe\u0301.'))],
  ['spaces', plus(field('500', '  ', 'a', ' two  blanks.'))],
  ['isbn-invalid', plus(field('020', '  ', 'a', '0306406153'))],
  ['isbn-invalid', plus(field('020', '  ', 'a', '£9.50'))],
  ['isbn-qualifier', plus(field('020', '  ', 'a', '9780306406157 (pbk.)'))],
  ['isbn-qualifier', plus(field('020', '  ', 'a', '9780306406157 £9.50'))],
  ['isbn-hyphens', plus(field('020', '  ', 'a', 'ISBN 978-0-306-40615-7'))],
  ['isbn-13-missing', plus(field('020', '  ', 'a', '0306406152'))],
  [
    'isbn-duplicate',
    plus(field('020', '  ', 'a', '9780306406157'), field('020', '  ', 'a', '978-0-306-40615-7')),
  ],
  ['issn-invalid', plus(field('022', '  ', 'a', '0317-8472'))],
  ['issn-invalid', plus(field('022', '  ', 'a', '03178471'))],
  ['lccn-invalid', plus(field('010', '  ', 'a', 'eel-99'))],
  ['control-number', without('001')],
  ['date-and-text', instead(field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', '1991.'))],
  ['date-type', instead(f008('1990', 'eng', { second: '1990' }))],
  ['date-type', instead(f008('1990', 'eng', { type: 'm', second: '1980' }))],
  ['language-code', instead(f008('1990', 'enx'))],
  ['language-code', plus(field('041', '0 ', 'a', 'engfr'))],
  ['language-and-041', plus(field('041', '1 ', 'a', 'fre', 'h', 'eng'))],
  ['language-and-240', plus(field('240', '10', 'a', 'Notes.', 'l', 'French'))],
  ['country-code', instead(f008('1990', 'eng', { country: 'zzz' }))],
  ['country-and-place', instead(field('264', ' 1', 'a', 'Paris :', 'b', 'Osier,', 'c', '1990.'))],
  ['area-code', plus(field('043', '  ', 'a', 'e-uk'))],
  ['area-code', plus(field('043', '  ', 'a', 'e-zz---'))],
  ['form-and-description', plus(field('338', '  ', 'a', 'online resource', '2', 'rdacarrier'))],
  ['type-and-content', plus(field('336', '  ', 'a', 'performed music', '2', 'rdacontent'))],
  ['illustrations', instead(f008('1990', 'eng', { ill: '' }))],
  ['illustrations', instead(field('300', '  ', 'a', '20 pages ;', 'c', '24 cm'))],
  ['bibliography', plus(field('504', '  ', 'a', 'Includes bibliographical references and index.'))],
  ['main-entry', plus(field('100', '1 ', 'a', 'Reedman, Amos.'))],
  ['main-entry', instead(field('245', '10', 'a', 'Notes on eels /', 'c', 'A.'))],
  ['nonfiling-count', instead(title('a', 'The eels /', 'c', 'A.'))],
  ['nonfiling-count', instead(field('245', '04', 'a', 'Eels of home /', 'c', 'A.'))],
  ['nonfiling-count', instead(field('245', '0 ', 'a', 'Eels of home /', 'c', 'A.'))],
  ['capital-after-article', instead(field('245', '04', 'a', 'The Eels /', 'c', 'A.'))],
  ['all-capitals', instead(title('a', 'NOTES ON EELS /', 'c', 'A.'))],
  [
    'medium-designation',
    plus(field('336', '  ', 'a', 'text', '2', 'rdacontent')).map((f) =>
      f.tag === '245' ? title('a', 'Notes', 'h', '[text] /', 'c', 'A.') : f,
    ),
  ],
  ['medium-designation', instead(title('a', 'Notes', 'h', 'video /', 'c', 'A.'))],
  ['brackets', instead(title('a', 'Notes [on eels /', 'c', 'A.'))],
  ['title-order', instead(title('b', 'notes /', 'a', 'Eels', 'c', 'A.'))],
  ['title-punctuation', instead(title('a', 'Notes on eels', 'c', 'A.'))],
  ['title-punctuation', instead(title('a', 'Notes', 'b', 'on eels /', 'c', 'A.'))],
  ['end-mark', instead(title('a', 'Notes on eels /', 'c', 'Amos Reedman'))],
  ['responsibility-initials', instead(title('a', 'Notes on eels /', 'c', 'A. B. Reedman.'))],
  ['duplicate-publication', plus(field('260', '  ', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', '1990.'))],
  ['copyright-sign', plus(field('264', ' 4', 'c', '1990'))],
  ['copyright-sign', instead(field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', 'c1990.'))],
  ['publication-incomplete', instead(field('264', ' 1', 'a', 'Osmere,', 'c', '1990.'))],
  [
    'physical-punctuation',
    instead(field('300', '  ', 'a', '20 pages :', 'b', 'illustrations ;', 'c', '24cm')),
  ],
  [
    'physical-punctuation',
    instead(field('300', '  ', 'a', '20 pages', 'b', 'illustrations ;', 'c', '24 cm')),
  ],
  ['description-missing', without('300')],
  ['name-dates', named('a', 'Reedman, Amos,', 'd', '1931 - 2004.')],
  ['name-dates', named('a', 'Reedman, Amos,', 'd', '2004-1931.')],
  ['name-dates', named('a', 'Reedman, Amos,', 'd', 'when eels were cheap.')],
  ['name-punctuation', named('a', 'Reedman, Amos', 'd', '1931-2004.')],
  ['name-punctuation', named('a', 'Reedman, Amos,')],
  ['relator', named('a', 'Reedman, Amos,', 'e', 'Author.')],
  ['relator', named('a', 'Reedman, Amos.', '4', 'qqq')],
  ['duplicate-name', [...named('a', 'Reedman, Amos.'), field('700', '1 ', 'a', 'Reedman, Amos,')]],
  ['initials', named('a', 'Reedman, A.B.')],
  ['duplicate-subject', plus(field('650', ' 0', 'a', 'Eels.'), field('650', ' 0', 'a', 'eels'))],
  ['incomplete-subject', plus(field('650', ' 0', 'x', 'History.'))],
  ['incomplete-subject', plus(field('650', ' 0', 'a', 'Eels --'))],
  ['deleted-subdivision', plus(field('650', ' 0', 'a', 'Eels', 'v', 'Juvenile literature.'))],
  ['thesaurus', plus(field('650', ' 2', 'a', 'Eels'))],
  ['thesaurus', plus(field('650', ' 7', 'a', 'Eels', '2', 'fast'))],
  ['subject-source', plus(field('650', ' 7', 'a', 'Eels'))],
  ['subject-source', plus(field('650', ' 0', 'a', 'Eels', '2', 'fast'))],
  ['subject-source', plus(field('650', ' 7', 'a', 'Eels', '2', 'nobody'))],
  ['uncoded-subdivision', plus(field('650', ' 0', 'a', 'Eels--History'))],
  ['uncontrolled-duplicate', plus(field('650', ' 0', 'a', 'Eels.'), field('653', '  ', 'a', 'eels'))],
  ['series-440', plus(field('440', ' 0', 'a', 'Craft notes ;', 'v', '3'))],
  ['series-tracing', plus(field('490', '1 ', 'a', 'Craft notes ;', 'v', '3'))],
  ['series-tracing', plus(field('490', '0 ', 'a', 'Craft notes'), field('830', ' 0', 'a', 'Craft notes.'))],
  ['link-invalid', plus(field('856', '40', 'u', 'htp://x y'))],
  ['link-invalid', plus(field('856', '40', 'u', ' https://wickmere.example/eels'))],
  [
    'duplicate-link',
    plus(
      field('856', '40', 'u', 'https://wickmere.example/a'),
      field('856', '40', 'u', 'https://wickmere.example/a/'),
    ),
  ],
  ['dewey-form', instead(field('082', '04', 'a', '746.4120942'))],
  ['lc-class-form', plus(field('050', ' 4', 'a', '746.41'))],
  ['barcode', plus(field('852', '1 ', 'b', 'SEDGE', 'p', '31204000517716'))],
  ['barcode', plus(field('876', '  ', 'p', '31204000517715'), field('876', '  ', 'p', '31204000517715'))],
  ['barcode-missing', plus(field('852', '1 ', 'b', 'SEDGE', 't', '2'))],
  ['holding-codes', plus(field('852', '1 ', 'b', 'Sedge', 'p', '31204000517715'))],
])('%s is found', (rule, fields) => expect(found(...fields)).toContain(rule));

test.each<[string, MarcRecord]>([
  [
    'too-long',
    record(...base, ...Array.from({ length: 12 }, () => field('520', '  ', 'a', 'x'.repeat(9000)))),
  ],
  ['brief-record', { ...record(...base), leader: '00000nam a22000003i 4500' }],
])('%s is found by the leader', (rule, brief) =>
  expect(checkRecord(brief, DEFAULT_HOUSE).map((f) => f.rule)).toContain(rule),
);

test('every check is proved by a record that it finds fault with', () => {
  const proved = new Set(
    [...readFileSync(__filename, 'utf8').matchAll(/^ {2}\[\s*'([a-z0-9-]+)',/gm)].map((m) => m[1]),
  );
  expect(CHECKS.map((c) => c.rule).filter((r) => !proved.has(r))).toEqual([]);
});

test.each<[string, Field[]]>([
  ['an old record without marks', [...instead(title('a', 'Notes on eels', 'c', 'A'))]],
  [
    'a title in German keeps its capitals',
    [...instead(f008('1990', 'ger', { country: 'gw ' }), field('245', '04', 'a', 'Die Weide /', 'c', 'A.'))],
  ],
  [
    'the same person in two roles',
    [
      ...named('a', 'Reedman, Amos,', 'e', 'author.'),
      field('700', '1 ', 'a', 'Reedman, Amos,', 'e', 'illustrator.'),
    ],
  ],
  [
    'a decade in brackets',
    instead(f008('199u', 'eng'), field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed Press,', 'c', '[199-?]')),
  ],
  [
    'a first date in brackets of what is still published',
    instead(
      f008('1981', 'eng', { type: 'c', second: '9999' }),
      field('264', ' 1', 'a', '[Osmere] :', 'b', 'Reed Press,', 'c', '[1981-'),
    ),
  ],
  [
    'the label of a sound recording as its shelf number',
    plus(field('050', '00', 'a', 'Reed Records RR 1012-2')),
  ],
  [
    'a linked pair',
    [...plus(field('500', '  ', '6', '880-01', 'a', 'x.'), field('880', '  ', '6', '500-01/(N', 'a', 'х.'))],
  ],
  ['old dates of a name', named('a', 'Reedman, Amos,', 'd', 'active 16th century.')],
  [
    'the same barcode in 852 and 876',
    plus(field('852', '1 ', 'b', 'SEDGE', 'p', '31204000517715'), field('876', '  ', 'p', '31204000517715')),
  ],
  ['a title that begins like an article', instead(title('a', 'A to Z of eels /', 'c', 'A.'))],
])('nothing is said of %s', (_, fields) => {
  const leader = _.startsWith('an old') ? '00000nam a2200000   4500' : '00000nam a2200000 i 4500';
  expect(checkRecord({ leader, fields }, house)).toEqual([]);
});

test('a local field is nobody’s business', () =>
  expect(found(...base, field('949', '  ', 'q', 'x'), field('590', '  ', 'a', 'ours'))).toEqual([]));
test('a check that is switched off says nothing', () => {
  expect(checkRecord(record(...without('245')), { ...DEFAULT_HOUSE, checksOff: ['title-missing'] })).toEqual(
    [],
  );
});
test('every check is named once and says its source', () => {
  expect(new Set(CHECKS.map((c) => c.rule)).size).toBe(CHECKS.length);
  for (const c of CHECKS) expect(c.source.length).toBeGreaterThan(5);
});
test('a fix applied ends its finding and brings no new error', () => {
  const spoiled = record(
    ...without('245'),
    field('245', '10', 'a', 'The Eels /'),
    field('020', '  ', 'a', '0306406152 (hbk.)'),
    field('650', ' 0', 'a', 'Eels.'),
    field('650', ' 0', 'a', 'eels'),
    field('500', '  ', 'a', 'cafÃ©', 'b', ''),
    field('650', ' 0', 'a', 'Crafts', 'v', 'Juvenile literature'),
  );
  for (let r = spoiled, left = 30; ; left--) {
    const next = checkRecord(r, DEFAULT_HOUSE).find((f) => f.fix);
    if (!next) break;
    expect(left).toBeGreaterThan(0);
    const corrected = applyEdits(r, next.fix!.edits);
    const same = (x: { rule: string; message: string }) => x.rule === next.rule && x.message === next.message;
    expect(checkRecord(corrected, DEFAULT_HOUSE).filter(same).length).toBe(
      checkRecord(r, DEFAULT_HOUSE).filter(same).length - 1,
    );
    r = corrected;
  }
});
test('a record without the tags that a check needs gives it nothing to find', () => {
  const needy = CHECKS.filter((c) => c.needs);
  expect(needy.length).toBeGreaterThan(20);
  const ours = { ...DEFAULT_HOUSE, codes: { branches: ['SED'], locations: ['OPEN'] }, thesauri: ['lcsh'] };
  fc.assert(
    fc.property(anyRecord, fc.constantFrom(...needy), (r, check) => {
      const fields = [...base, ...r.fields].filter((f) => !check.needs!.includes(f.tag));
      const told: unknown[] = [];
      check.run(viewOf({ leader: r.leader, fields }), (f) => told.push(f), ours);
      expect(told).toEqual([]);
    }),
  );
});
test('no record makes a check throw', () =>
  fc.assert(fc.property(anyRecord, (r) => expect(Array.isArray(checkRecord(r, DEFAULT_HOUSE))).toBe(true))));
test.each([
  ['The eels', 'eng', 'The '],
  ["L'osier", 'fre', "L'"],
  ['L’osier', 'fre', 'L’'],
  ['Theory', 'eng', ''],
  ['Die Weide', 'ger', 'Die '],
  ['Die Another Day', 'eng', ''],
])('article of %s in %s is %p', (title, language, article) => {
  expect(initialArticle(title, language)).toBe(article);
});

describe('the word after the initial article', () => {
  const told = (title: string, ...more: Field[]) =>
    checkRecord(
      { leader: '00000nam a2200000 i 4500', fields: instead(field('245', '04', 'a', title), ...more) },
      DEFAULT_HOUSE,
    ).some((f) => f.rule === 'capital-after-article');
  test.each<[string, boolean, Field[]]>([
    ['The Eels of the fens', true, []],
    ['The Willow Bed', true, []],
    ['The Hallowdale book', true, []],
    ['The Hallowdale book', false, [field('651', ' 0', 'a', 'Hallowdale (England)')]],
    ['The Hallowdale book', false, [field('650', ' 0', 'a', 'Baskets', 'z', 'England', 'z', 'Hallowdale.')]],
    ['The Reedman papers', false, [field('700', '1 ', 'a', 'Reedman, Amos.')]],
    ['The Hallowdale book', false, [field('500', '  ', 'a', 'Written at Hallowdale.')]],
    ['The Hallowdale book', true, [field('500', '  ', 'a', 'Index. Hallowdale is a place.')]],
    ['The Tolland Heath book', false, []],
    ['The eels', false, []],
  ])('%s: %p', (title, expected, more) => expect(told(title, ...more)).toBe(expected));
});
