import fc from 'fast-check';
import { DEFAULT_HOUSE } from '../house';
import { applyEdits, field, type Field, type MarcRecord } from '../marc';
import { anyRecord } from '../testing/records';
import { CHECKS, checkRecord, initialArticle } from '.';

const fixed = (year: string, language: string) => `120508s${year}    enka   g      000 0 ${language} d`;
const base: Field[] = [
  { tag: '008', value: fixed('1990', 'eng') },
  field('082', '04', 'a', '746.41'),
  field('245', '10', 'a', 'Notes on eels /', 'c', 'A.'),
  field('264', ' 1', 'c', '1990.'),
];
const record = (...fields: Field[]): MarcRecord => ({ leader: '00000nam a2200000 i 4500', fields });
const found = (...fields: Field[]) => checkRecord(record(...fields), DEFAULT_HOUSE).map((f) => f.rule);
const without = (tag: string) => base.filter((f) => f.tag !== tag);

test('a good record has no finding', () => expect(checkRecord(record(...base), DEFAULT_HOUSE)).toEqual([]));

test.each<[string, Field[]]>([
  ['title-missing', without('245')],
  ['several-main-entries', [...base, field('100', '1 ', 'a', 'A'), field('110', '2 ', 'a', 'B')]],
  ['not-repeatable', [...base, field('245', '10', 'a', 'Again')]],
  [
    'not-repeatable',
    [...without('264'), field('264', ' 1', 'c', '1990.'), field('300', '  ', 'a', 'x', 'b', 'y', 'b', 'z')],
  ],
  ['not-defined', [...base, field('333', '  ', 'a', 'x')]],
  ['not-defined', [...base, field('300', '  ', 'a', 'x', 'k', 'y')]],
  ['empty-subfield', [...base, field('500', '  ', 'a', ' ')]],
  ['twice-encoded', [...base, field('500', '  ', 'a', 'cafÃ©')]],
  ['replacement-character', [...base, field('500', '  ', 'a', 'caf\ufffd')]],
  ['isbn-form', [...base, field('020', '  ', 'a', '0306406153')]],
  ['isbn-form', [...base, field('020', '  ', 'a', '9780306406157 (pbk.)')]],
  ['isbn-13-missing', [...base, field('020', '  ', 'a', '0306406152')]],
  ['date-against-text', [...without('264'), field('264', ' 1', 'c', '1991.')]],
  ['fixed-length', [{ tag: '008', value: '900101s1990' }, ...without('008')]],
  ['nonfiling-count', [...without('245'), field('245', '10', 'a', 'The eels /')]],
  ['nonfiling-count', [...without('245'), field('245', '14', 'a', 'Eels of home /')]],
  ['capital-after-article', [...without('245'), field('245', '14', 'a', 'The Eels /')]],
  ['duplicate-subject', [...base, field('650', ' 0', 'a', 'Eels.'), field('650', ' 0', 'a', 'eels')]],
  ['dropped-subdivision', [...base, field('650', ' 0', 'a', 'Eels', 'v', 'Juvenile literature.')]],
  ['dewey-form', [...without('082'), field('082', '04', 'a', '746.4120942')]],
  ['link-form', [...base, field('856', '40', 'u', 'htp://x y')]],
])('%s is found', (rule, fields) => expect(found(...fields)).toContain(rule));

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
    const mended = applyEdits(r, next.fix!.edits);
    const same = (x: { rule: string; message: string }) => x.rule === next.rule && x.message === next.message;
    expect(checkRecord(mended, DEFAULT_HOUSE).filter(same).length).toBe(
      checkRecord(r, DEFAULT_HOUSE).filter(same).length - 1,
    );
    r = mended;
  }
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
