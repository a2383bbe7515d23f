// What each fix makes of a field, and whether it may be applied unseen. Expected forms: MARC 21, ISBD and the sources that each
// check names; the examples are made up.
import { DEFAULT_HOUSE, type HouseRules } from '../house';
import { applyEdits, field, fieldText, type Field, type MarcRecord } from '../marc';
import { checkRecord } from '.';

const LEADER = '00000nam a2200000 i 4500';
const fixed = (value = '120508s1990    enka          000 0 eng d') => ({ tag: '008', value });
const house: HouseRules = {
  ...DEFAULT_HOUSE,
  thesauri: ['lcsh'],
  codes: { branches: ['SEDGE', 'MILL'], locations: ['OPEN', 'CLOSED'] },
};

/** Applies the first fix of a rule and gives the fields that are then there and were not before. */
function corrected(rule: string, fields: readonly Field[], rules: HouseRules = house) {
  const record: MarcRecord = { leader: LEADER, fields };
  const finding = checkRecord(record, rules).find((f) => f.rule === rule && f.fix);
  if (!finding?.fix) return { fix: null };
  const before = fields.map(fieldText);
  const after = applyEdits(record, finding.fix.edits);
  const now = after.fields.map(fieldText);
  return {
    fix: finding.fix.safe ? 'safe' : 'look',
    now: now.filter((t) => !before.includes(t)),
    gone: before.length - now.length,
    left: checkRecord(after, rules).filter((f) => f.rule === rule && f.message === finding.message).length,
  };
}

test.each<[string, string, Field, 'safe' | 'look', string]>([
  [
    'isbn-qualifier',
    'a qualifier',
    field('020', '  ', 'a', '9780306406157 (pbk.)'),
    'safe',
    '020 ## $a9780306406157$qpbk.',
  ],
  [
    'isbn-qualifier',
    'two qualifiers',
    field('020', '  ', 'a', '9780306406157 (v. 1) (pbk.)'),
    'safe',
    '020 ## $a9780306406157$qv. 1$qpbk.',
  ],
  [
    'isbn-qualifier',
    'a price',
    field('020', '  ', 'a', '0306406152 : £9.50'),
    'safe',
    '020 ## $a0306406152$c£9.50',
  ],
  [
    'isbn-qualifier',
    'a qualifier and a price',
    field('020', '  ', 'a', '0306406152 (hbk.) : £9.50'),
    'safe',
    '020 ## $a0306406152$qhbk.$c£9.50',
  ],
  [
    'isbn-qualifier',
    'and what stands behind',
    field('020', '  ', 'a', '0306406152 (hbk.)', 'c', '£9.50'),
    'safe',
    '020 ## $a0306406152$qhbk.$c£9.50',
  ],
  ['isbn-hyphens', 'hyphens', field('020', '  ', 'a', '978-0-306-40615-7'), 'safe', '020 ## $a9780306406157'],
  ['isbn-hyphens', 'dashes', field('020', '  ', 'a', '978–0–306–40615–7'), 'safe', '020 ## $a9780306406157'],
  [
    'isbn-hyphens',
    'the word ISBN',
    field('020', '  ', 'a', 'ISBN: 0-306-40615-2'),
    'safe',
    '020 ## $a0306406152',
  ],
  [
    'isbn-invalid',
    'a wrong check digit',
    field('020', '  ', 'a', '0306406153', 'q', 'pbk.'),
    'look',
    '020 ## $z0306406153$qpbk.',
  ],
  ['isbn-invalid', 'a price alone', field('020', '  ', 'a', '£9.50'), 'look', '020 ## $c£9.50'],
  [
    'isbn-13-missing',
    'ten digits',
    field('020', '  ', 'a', '0306406152', 'q', 'pbk.'),
    'safe',
    '020 ## $a9780306406157',
  ],
  ['issn-invalid', 'no hyphen', field('022', '  ', 'a', '03178471'), 'safe', '022 ## $a0317-8471'],
  ['issn-invalid', 'a small x', field('022', '  ', 'a', '1050-124x'), 'safe', '022 ## $a1050-124X'],
  ['entity', 'an entity', field('500', '  ', 'a', 'Reed &amp; sons.'), 'safe', '500 ## $aReed & sons.'],
  ['entity', 'a number', field('500', '  ', 'a', 'caf&#xE9;, caf&#233;.'), 'safe', '500 ## $acafé, café.'],
  [
    'double-encoded',
    'twice',
    field('500', '  ', 'a', 'cafÃ© de lâ€™Est.'),
    'safe',
    '500 ## $acafé de l’Est.',
  ],
  ['control-character', 'a tab', field('500', '  ', 'a', 'one\ttwo\u0007.'), 'safe', '500 ## $aone two.'],
  ['control-character', 'a broken line', field('500', '  ', 'a', 'one\r\ntwo.'), 'safe', '500 ## $aone two.'],
  ['decomposed-letter', 'marks apart', field('500', '  ', 'a', 'cafe\u0301.'), 'safe', '500 ## $acafé.'],
  ['spaces', 'blanks', field('500', '  ', 'a', ' two  blanks. '), 'safe', '500 ## $atwo blanks.'],
  ['empty-subfield', 'one of two', field('500', '  ', 'a', 'x.', '3', ' '), 'safe', '500 ## $ax.'],
  ['nonfiling-count', 'The', field('245', '00', 'a', 'The eels.'), 'look', '245 04 $aThe eels.'],
  [
    'nonfiling-count',
    'no article',
    field('245', '04', 'a', 'Eels of home.'),
    'look',
    '245 00 $aEels of home.',
  ],
  [
    'capital-after-article',
    'The Eels',
    field('245', '04', 'a', 'The Eels of home.'),
    'look',
    '245 04 $aThe eels of home.',
  ],
  [
    'all-capitals',
    'shouted',
    field('245', '00', 'a', 'NOTES ON EELS /', 'c', 'A.'),
    'look',
    '245 00 $aNotes on eels /$cA.',
  ],
  [
    'title-punctuation',
    'no slash',
    field('245', '00', 'a', 'Notes on eels', 'c', 'A.'),
    'look',
    '245 00 $aNotes on eels /$cA.',
  ],
  [
    'title-punctuation',
    'a comma for a colon',
    field('245', '00', 'a', 'Notes,', 'b', 'on eels.'),
    'look',
    '245 00 $aNotes :$bon eels.',
  ],
  [
    'title-punctuation',
    'a part',
    field('245', '00', 'a', 'Notes', 'n', 'Part 2.'),
    'look',
    '245 00 $aNotes.$nPart 2.',
  ],
  [
    'title-punctuation',
    'the name of a part',
    field('245', '00', 'a', 'Notes.', 'n', 'Part 2.', 'p', 'Eels.'),
    'look',
    '245 00 $aNotes.$nPart 2,$pEels.',
  ],
  [
    'end-mark',
    'a title',
    field('245', '00', 'a', 'Notes /', 'c', 'Amos Reedman'),
    'safe',
    '245 00 $aNotes /$cAmos Reedman.',
  ],
  ['end-mark', 'an edition', field('250', '  ', 'a', 'Second edition ;'), 'safe', '250 ## $aSecond edition.'],
  [
    'responsibility-initials',
    'A. B.',
    field('245', '00', 'a', 'Notes /', 'c', 'A. B. Reedman.'),
    'look',
    '245 00 $aNotes /$cA.B. Reedman.',
  ],
  ['copyright-sign', 'a c', field('264', ' 4', 'c', 'c1990'), 'safe', '264 #4 $c©1990'],
  ['copyright-sign', 'a p', field('264', ' 4', 'c', 'p1990'), 'safe', '264 #4 $c℗1990'],
  ['copyright-sign', 'nothing', field('264', ' 4', 'c', '1990'), 'safe', '264 #4 $c©1990'],
  [
    'copyright-sign',
    'as date of publication',
    field('264', ' 1', 'a', 'Osmere :', 'b', 'Reed,', 'c', '©1990.'),
    'look',
    '264 #1 $aOsmere :$bReed,$c1990.',
  ],
  [
    'physical-punctuation',
    'no blank',
    field('300', '  ', 'a', '20 pages ;', 'c', '24cm'),
    'safe',
    '300 ## $a20 pages ;$c24 cm',
  ],
  [
    'physical-punctuation',
    'cms',
    field('300', '  ', 'a', '20 pages ;', 'c', '24 cms'),
    'safe',
    '300 ## $a20 pages ;$c24 cm',
  ],
  [
    'physical-punctuation',
    'no colon',
    field('300', '  ', 'a', '20 pages', 'b', 'maps ;', 'c', '24 cm'),
    'look',
    '300 ## $a20 pages :$bmaps ;$c24 cm',
  ],
  [
    'name-dates',
    'blanks',
    field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1931 - 2004.'),
    'look',
    '700 1# $aReedman, Amos,$d1931-2004.',
  ],
  [
    'name-dates',
    'a dash',
    field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1931–'),
    'look',
    '700 1# $aReedman, Amos,$d1931-',
  ],
  [
    'name-punctuation',
    'no comma',
    field('700', '1 ', 'a', 'Reedman, Amos', 'd', '1931-2004.'),
    'look',
    '700 1# $aReedman, Amos,$d1931-2004.',
  ],
  [
    'name-punctuation',
    'a comma at the end',
    field('700', '1 ', 'a', 'Reedman, Amos,'),
    'look',
    '700 1# $aReedman, Amos.',
  ],
  [
    'relator',
    'a capital',
    field('700', '1 ', 'a', 'Reedman, Amos,', 'e', 'Illustrator.'),
    'look',
    '700 1# $aReedman, Amos,$eillustrator.',
  ],
  ['initials', 'close', field('700', '1 ', 'a', 'Reedman, A.B.C.'), 'look', '700 1# $aReedman, A. B. C.'],
  ['incomplete-subject', 'dangling dashes', field('650', ' 0', 'a', 'Eels --'), 'safe', '650 #0 $aEels'],
  [
    'deleted-subdivision',
    'the last part',
    field('650', ' 0', 'a', 'Eels', 'v', 'Juvenile literature.'),
    'safe',
    '650 #0 $aEels.',
  ],
  [
    'deleted-subdivision',
    'a part inside',
    field('650', ' 0', 'a', 'Eels', 'v', 'Juvenile literature', 'z', 'Fens.'),
    'safe',
    '650 #0 $aEels$zFens.',
  ],
  [
    'uncoded-subdivision',
    'as text',
    field('650', ' 0', 'a', 'Eels--Fens--20th century'),
    'look',
    '650 #0 $aEels$xFens$y20th century',
  ],
  [
    'subject-source',
    'a source beside 0',
    field('650', ' 0', 'a', 'Eels', '2', 'fast'),
    'look',
    '650 #7 $aEels$2fast',
  ],
  [
    'series-tracing',
    'not traced',
    field('490', '1 ', 'a', 'Craft notes ;', 'v', '3'),
    'look',
    '490 0# $aCraft notes ;$v3',
  ],
  [
    'link-invalid',
    'blanks',
    field('856', '40', 'u', ' https://wickmere.example/eels '),
    'safe',
    '856 40 $uhttps://wickmere.example/eels',
  ],
  [
    'link-invalid',
    'a slip',
    field('856', '40', 'u', 'htp://wickmere.example/eels'),
    'look',
    '856 40 $uhttp://wickmere.example/eels',
  ],
  [
    'link-invalid',
    'no scheme',
    field('856', '40', 'u', 'www.wickmere.example/eels'),
    'look',
    '856 40 $uhttps://www.wickmere.example/eels',
  ],
  [
    'link-invalid',
    'twice the scheme',
    field('856', '40', 'u', 'https://https://wickmere.example'),
    'look',
    '856 40 $uhttps://wickmere.example',
  ],
  ['dewey-form', 'too long', field('082', '04', 'a', '746.4120942'), 'safe', '082 04 $a746.41'],
  ['dewey-form', 'marks', field('082', '04', 'a', '746.4/12'), 'safe', '082 04 $a746.4'],
  [
    'holding-codes',
    'a small letter',
    field('852', '  ', 'b', 'Sedge', 'p', '31204000517715'),
    'look',
    '852 ## $bSEDGE$p31204000517715',
  ],
  ['holding-codes', 'a slip', field('852', '  ', 'b', 'MILL', 'c', 'OPNE'), 'look', '852 ## $bMILL$cOPEN'],
  ['indicator-value', 'no such value', field('500', '1 ', 'a', 'Eels.'), 'look', '500 ## $aEels.'],
])('%s, %s', (rule, _, given, fix, text) => {
  expect(corrected(rule, [fixed(), given])).toEqual({
    fix,
    now: [text],
    gone: 0 + countGained(rule),
    left: 0,
  });
});

/** Some fixes add a field and keep the one that they are about. */
const countGained = (rule: string) => (rule === 'isbn-13-missing' ? -1 : 0);

test.each<[string, string, Field[], string[]]>([
  [
    'duplicate-subject',
    'the second',
    [field('650', ' 0', 'a', 'Eels.'), field('650', ' 0', 'a', 'eels')],
    [],
  ],
  [
    'isbn-duplicate',
    'the second',
    [field('020', '  ', 'a', '9780306406157'), field('020', '  ', 'a', '9780306406157')],
    [],
  ],
  [
    'uncontrolled-duplicate',
    'the free one',
    [field('650', ' 0', 'a', 'Eels.'), field('653', '  ', 'a', 'eels')],
    [],
  ],
  [
    'duplicate-link',
    'the second',
    [field('856', '40', 'u', 'https://a.example/b'), field('856', '40', 'u', 'https://a.example/b/')],
    [],
  ],
  [
    'duplicate-name',
    'the second',
    [field('100', '1 ', 'a', 'Reedman, Amos.'), field('700', '1 ', 'a', 'Reedman, Amos,')],
    [],
  ],
  ['thesaurus', 'another system', [field('650', ' 2', 'a', 'Eels')], []],
  ['empty-subfield', 'the only one', [field('500', '  ', 'a', ' ')], []],
  ['incomplete-subject', 'no word in it', [field('650', ' 0', 'a', '--')], []],
])('%s takes away %s', (rule, _, given, now) => {
  const found = corrected(rule, [fixed(), ...given]);
  expect(found).toMatchObject({ now, gone: 1, left: 0 });
});

test('a 440 becomes a 490 as found and an 830 as traced', () => {
  expect(corrected('series-440', [field('440', ' 4', 'a', 'The craft notes ;', 'v', '3')]).now).toEqual([
    '490 1# $aThe craft notes ;$v3',
    '830 #4 $aThe craft notes ;$v3',
  ]);
});

test('the material designation goes, its mark stays with the title', () => {
  const given = [
    field('245', '00', 'a', 'Notes', 'h', '[text] :', 'b', 'on eels.'),
    field('336', '  ', 'a', 'text', '2', 'rdacontent'),
  ];
  expect(corrected('medium-designation', given).now).toEqual(['245 00 $aNotes :$bon eels.']);
});

describe('fixes of 008', () => {
  const f264 = (year: string, place = 'Osmere :') =>
    field('264', ' 1', 'a', place, 'b', 'Reed,', 'c', `${year}.`);
  test.each<[string, Field[], number, string]>([
    ['date-and-text', [fixed(), f264('1991')], 7, '1991'],
    ['date-type', [fixed('120508s19901990enka          000 0 eng d')], 11, '    '],
    ['language-and-041', [fixed(), field('041', '1 ', 'a', 'fre', 'h', 'eng')], 35, 'fre'],
    ['country-and-place', [fixed(), f264('1990', 'Paris :')], 15, 'fr '],
    [
      'illustrations',
      [fixed('120508s1990    enk           000 0 eng d'), field('300', '  ', 'a', '9 pages :', 'b', 'maps')],
      18,
      'b   ',
    ],
    ['form-and-description', [fixed(), field('338', '  ', 'b', 'cr', '2', 'rdacarrier')], 23, 'o'],
  ])('%s', (rule, fields, at, text) => {
    const { fix, now } = corrected(rule, fields);
    expect(fix).toBe('look');
    const value = now![0]!.slice(7);
    expect(value).toHaveLength(40);
    expect(value.slice(at, at + text.length)).toBe(text);
    const given = (fields[0] as { value: string }).value;
    expect(value.slice(0, at) + value.slice(at + text.length)).toBe(
      given.slice(0, at) + given.slice(at + text.length),
    );
  });
  test('one that is too short is filled up at its end', () => {
    const short = fixed().value.slice(0, 38);
    expect(corrected('fixed-length', [fixed(short)]).now).toEqual([`008    ${short}  `]);
  });
});

test.each<[string, Field]>([
  ['a fiction class', field('082', '04', 'a', '[Fic]')],
  ['a class as long as the house keeps', field('082', '04', 'a', '746.41')],
  ['an ISSN that is right', field('022', '0 ', 'a', '0317-8471')],
  ['a mail address as link', field('856', '40', 'u', 'mailto:desk@wickmere.example')],
  ['a handle', field('856', '40', 'u', 'urn:nbn:de:101:1-20200101')],
  ['a name with open dates', field('700', '1 ', 'a', 'Reedman, Amos,', 'd', '1931-')],
  ['a name with a relator code', field('700', '1 ', 'a', 'Reedman, Amos.', '4', 'ill')],
  ['a date of copyright', field('264', ' 4', 'c', '©1990')],
  ['a control number with blanks', field('035', '  ', 'a', '(Wick)  12')],
  [
    'a whole heading',
    field('650', ' 0', 'a', 'Eels', 'z', 'Fens (England)', 'x', 'History', 'y', '20th century.'),
  ],
  ['an LC number with an old suffix', field('010', '  ', 'a', '   55005000 //r842')],
])('%s is left as it is', (_, given) => {
  const about = checkRecord({ leader: LEADER, fields: [fixed(), given] }, { ...house, thesauri: [] });
  expect(about.filter((f) => f.where.field === 1 && f.fix)).toEqual([]);
});
