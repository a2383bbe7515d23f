import { isData, type DataField, type Field, type MarcRecord } from '../marc';
import fc from 'fast-check';
import { mergeForms, mergeInRecord, formOfAuthority, formOfField } from '.';
import { typeOfTag } from './own-part';

/** A field as people write it: `700 1_ $aReedman, A.,$eeditor.` */
function read(line: string): DataField {
  const subfields = line
    .slice(7)
    .split('$')
    .slice(1)
    .map((s) => ({ code: s[0]!, value: s.slice(1) }));
  return {
    tag: line.slice(0, 3),
    ind1: line[4]!.replace('_', ' '),
    ind2: line[5]!.replace('_', ' '),
    subfields,
  };
}
const write = (f: Field) =>
  isData(f)
    ? `${f.tag} ${(f.ind1 + f.ind2).replaceAll(' ', '_')} ${f.subfields.map((s) => `$${s.code}${s.value}`).join('')}`
    : `${f.tag} ${f.value}`;
const formOf = (line: string) =>
  line[0] === '1' ? formOfAuthority({ leader: '', fields: [read(line)] }) : formOfField(read(line));

function merged(kept: string, lost: string, fields: readonly string[], leader = '00000nam a2200000 i 4500') {
  const forms = mergeForms(formOf(kept), [formOf(lost)]);
  const record: MarcRecord = { leader, fields: fields.map(read) };
  const { record: after, notes } = mergeInRecord(record, forms.kept, forms.lost);
  return { fields: after.fields.map(write), notes };
}

const REEDMAN = '100 1_ $aReedman, Amos,$d1880-1950';
const OPEN = '100 1_ $aReedman, Amos,$d1946-';
const LOST = '100 1_ $aReedman, A.';
const C = '00000nam a2200000 c 4500';

// MARC 21 Bibliographic X00, X10, X11, X30, 6XX; marks between elements: common practice under ISBD punctuation, no source.
const CASES: readonly [string, string, string, string, string, string?][] = [
  [
    'a relation in front, a title behind',
    REEDMAN,
    LOST,
    '700 12 $iContainer of (expression):$aReedman, A.$tTools.',
    '700 12 $iContainer of (expression):$aReedman, Amos,$d1880-1950.$tTools.',
  ],
  [
    'a relator behind a date',
    REEDMAN,
    LOST,
    '700 1_ $aReedman, A.,$eeditor.',
    '700 1_ $aReedman, Amos,$d1880-1950,$eeditor.',
  ],
  [
    'a relator behind an open date',
    OPEN,
    LOST,
    '700 1_ $aReedman, A.,$eeditor.',
    '700 1_ $aReedman, Amos,$d1946-$eeditor.',
  ],
  [
    'a title behind an open date',
    OPEN,
    LOST,
    '700 12 $aReedman, A.$tTools.',
    '700 12 $aReedman, Amos,$d1946-$tTools.',
  ],
  [
    'units and relator of a meeting',
    '111 2_ $aCongress of Tools',
    '111 2_ $aTool Congress.$eHammer Section',
    '711 2_ $aTool Congress.$eHammer Section,$jsponsor.',
    '711 2_ $aCongress of Tools,$jsponsor.',
  ],
  [
    'a body with a form subheading',
    '110 1_ $aRepublic of Wick',
    '110 1_ $aWick',
    '710 1_ $aWick.$kTreaties, etc.$gHarrow,$d1848 Feb. 2.',
    '710 1_ $aRepublic of Wick.$kTreaties, etc.$gHarrow,$d1848 Feb. 2.',
  ],
  [
    'an abbreviation before a relator',
    '110 2_ $aWickmere Press, Inc.',
    '110 2_ $aWickmere Pr',
    '710 2_ $aWickmere Pr.,$epublisher.',
    '710 2_ $aWickmere Press, Inc.,$epublisher.',
  ],
  [
    'an abbreviation at the end',
    '110 2_ $aWickmere Press, Inc.',
    '110 2_ $aWickmere Press',
    '710 2_ $aWickmere Press.',
    '710 2_ $aWickmere Press, Inc.',
  ],
  [
    'a bracket before a title',
    '110 2_ $aSteering Group (1978-2005 : Harrow)',
    '110 2_ $aSteering Group',
    '710 22 $aSteering Group.$tReport.',
    '710 22 $aSteering Group (1978-2005 : Harrow).$tReport.',
  ],
  [
    'a bracket at the end',
    '110 2_ $aGroup (Harrow)',
    '110 2_ $aGroup',
    '710 2_ $aGroup.',
    '710 2_ $aGroup (Harrow)',
  ],
  [
    'no marks between elements',
    REEDMAN,
    LOST,
    '700 1_ $aReedman, A.$eeditor',
    '700 1_ $aReedman, Amos,$d1880-1950$eeditor',
    C,
  ],
  [
    'no marks before a title',
    REEDMAN,
    LOST,
    '700 12 $aReedman, A.$tTools',
    '700 12 $aReedman, Amos,$d1880-1950$tTools',
    C,
  ],
  ['no mark at the end', REEDMAN, LOST, '700 1_ $aReedman, A.', '700 1_ $aReedman, Amos,$d1880-1950', C],
  [
    'a subdivided name as subject',
    REEDMAN,
    LOST,
    '600 10 $aReedman, A.$xTools.',
    '600 10 $aReedman, Amos,$d1880-1950$xTools.',
  ],
  [
    'a volume in a series',
    REEDMAN,
    LOST,
    '800 1_ $aReedman, A.$tTools ;$v3.',
    '800 1_ $aReedman, Amos,$d1880-1950.$tTools ;$v3.',
  ],
  [
    'a series title before its volume',
    '130 _0 $aEel notes',
    '130 _0 $aEel studies',
    '830 _0 $aEel studies ;$v3.',
    '830 _0 $aEel notes ;$v3.',
  ],
  [
    'numbers of the lost heading',
    REEDMAN,
    LOST,
    '700 1_ $aReedman, A.,$eeditor.$0(WKM)17$1http://wickmere.example/17$4edt',
    '700 1_ $aReedman, Amos,$d1880-1950,$eeditor.$4edt',
  ],
  [
    'a name of another type',
    '100 0_ $aAmos,$cof Reed',
    LOST,
    '700 1_ $aReedman, A.,$eeditor.',
    '700 0_ $aAmos,$cof Reed,$eeditor.',
  ],
  [
    'a title with characters to pass over',
    '130 _4 $aThe eels',
    '130 _0 $aEels',
    '730 0_ $aEels.',
    '730 4_ $aThe eels.',
  ],
  [
    'a subject carries its subdivisions along',
    '150 __ $aTrains',
    '150 __ $aRailways',
    '650 _0 $aRailways$zEngland.',
    '650 _0 $aTrains$zEngland.',
  ],
  [
    'a subdivided subject',
    '150 __ $aTrains$xHistory',
    '150 __ $aRailways$xHistory',
    '650 _0 $aRailways$xHistory$zEngland.',
    '650 _0 $aTrains$xHistory$zEngland.',
  ],
  [
    'two name-titles',
    '100 1_ $aReedman, Amos,$d1880-1950.$tTools',
    '100 1_ $aReedman, A.$tTools of wood',
    '700 12 $aReedman, A.$tTools of wood.',
    '700 12 $aReedman, Amos,$d1880-1950.$tTools.',
  ],
  [
    'a materials note and a link in front',
    REEDMAN,
    LOST,
    '700 1_ $6880-02$3Letters:$aReedman, A.',
    '700 1_ $6880-02$3Letters:$aReedman, Amos,$d1880-1950.',
  ],
  [
    'a genre term',
    '155 __ $aFolk tales',
    '155 __ $aFolktales',
    '655 _0 $aFolktales.',
    '655 _0 $aFolk tales.',
  ],
];
test.each(CASES.map((c) => ({ name: c[0], c })))('$name', ({ c: [, kept, lost, before, after, leader] }) => {
  expect(merged(kept, lost, [before], leader).fields).toEqual([after]);
});

test.each<[string, string, string[]]>([
  [
    'a heading with more parts is another one',
    '110 1_ $aWick.$bDept. of Tools',
    ['710 1_ $aWick.$bDept. of Tools.$bHammer Section.'],
  ],
  ['a subject that begins with the same words', '150 __ $aRailway', ['650 _0 $aRailway bridges.']],
  ['fields that are no access points', LOST, ['245 10 $aTools.', '500 __ $aReedman, A.']],
])('is left: %s', (_, lost, fields) => {
  const kept = `${lost.slice(0, 7)}$aKept form`;
  expect(merged(kept, lost, fields)).toEqual({ fields, notes: [] });
});

test('another vocabulary is left and told', () => {
  const fields = ['650 _7 $aEels.$2fast', '650 _1 $aEels.', '650 _0 $aEels.'];
  const { fields: after, notes } = merged('150 __ $aEel', '150 __ $aEels', fields);
  expect(after).toEqual(['650 _7 $aEels.$2fast', '650 _1 $aEels.', '650 _0 $aEel.']);
  expect(notes.join()).toMatch(/\(fast\).*\(lcshac\)/);
});

test.each<[string, string[], string[]]>([
  [
    'the lost form first',
    ['700 1_ $aReedman, A.,$eeditor.', '700 1_ $aReedman, Amos,$d1880-1950.'],
    ['700 1_ $aReedman, Amos,$d1880-1950,$eeditor.'],
  ],
  [
    'the kept form first',
    ['700 1_ $aReedman, Amos,$d1880-1950.', '700 1_ $aReedman, A.,$eeditor.'],
    ['700 1_ $aReedman, Amos,$d1880-1950,$eeditor.'],
  ],
  [
    'relators of both',
    ['700 1_ $aReedman, A.,$eeditor.', '700 1_ $aReedman, Amos,$d1880-1950,$eillustrator.'],
    ['700 1_ $aReedman, Amos,$d1880-1950,$eeditor,$eillustrator.'],
  ],
  [
    'the same relator once',
    ['700 1_ $aReedman, A.,$eeditor.', '700 1_ $aReedman, Amos,$d1880-1950,$eeditor.'],
    ['700 1_ $aReedman, Amos,$d1880-1950,$eeditor.'],
  ],
  [
    'a main entry and an added one',
    ['100 1_ $aReedman, Amos,$d1880-1950,$eauthor.', '700 1_ $aReedman, A.,$eeditor.'],
    ['100 1_ $aReedman, Amos,$d1880-1950,$eauthor,$eeditor.'],
  ],
  [
    'numbers of the one that stays',
    ['700 1_ $aReedman, Amos,$d1880-1950.$0(WKM)4', '700 1_ $aReedman, A.$0(WKM)9'],
    ['700 1_ $aReedman, Amos,$d1880-1950.$0(WKM)4'],
  ],
  [
    'an analytic entry is another thing',
    ['700 1_ $aReedman, Amos,$d1880-1950.', '700 12 $aReedman, A.$tTools.'],
    ['700 1_ $aReedman, Amos,$d1880-1950.', '700 12 $aReedman, Amos,$d1880-1950.$tTools.'],
  ],
  [
    'subjects with other subdivisions',
    ['600 10 $aReedman, Amos,$d1880-1950$xTools.', '600 10 $aReedman, A.$xHouses.'],
    ['600 10 $aReedman, Amos,$d1880-1950$xTools.', '600 10 $aReedman, Amos,$d1880-1950$xHouses.'],
  ],
  [
    'doubles that were there before stay',
    ['700 1_ $aElse, B.', '700 1_ $aElse, B.', '700 1_ $aReedman, A.'],
    ['700 1_ $aElse, B.', '700 1_ $aElse, B.', '700 1_ $aReedman, Amos,$d1880-1950.'],
  ],
])('folds: %s', (_, before, after) => {
  const result = merged(REEDMAN, LOST, before);
  expect(result.fields).toEqual(after);
  expect(result.notes.length).toBe(before.length - after.length);
});

test('what is transcribed, or in another script, is told', () => {
  const { fields, notes } = merged(REEDMAN, LOST, [
    '245 10 $aTools /$cA. Reedman.',
    '700 1_ $6880-01$aReedman, A.',
    '720 __ $aReedman, A.',
    '787 08 $aReedman, A.$tTools',
    '880 1_ $6700-01$aРидман, А.',
  ]);
  expect(fields[1]).toBe('700 1_ $6880-01$aReedman, Amos,$d1880-1950.');
  expect([fields[0], ...fields.slice(2)]).toEqual([
    '245 10 $aTools /$cA. Reedman.',
    '720 __ $aReedman, A.',
    '787 08 $aReedman, A.$tTools',
    '880 1_ $6700-01$aРидман, А.',
  ]);
  for (const told of ['245 $c', '880', '720', '787']) expect(notes.join()).toContain(told);
});

test.each([
  ['two kinds', REEDMAN, '110 2_ $aReedman', /two kinds/],
  ['a name and a name-title', REEDMAN, '100 1_ $aReedman, A.$tTools', /two kinds/],
  ['no heading', '245 10 $aTools', LOST, /no heading/],
  ['a heading without $a', '100 1_ $d1880', LOST, /no heading/],
  ['two vocabularies', '650 _0 $aEels', '650 _2 $aEels', /two vocabularies/],
])('refused: %s', (_, kept, lost, why) => {
  expect(() => mergeForms(formOf(kept), [formOf(lost)])).toThrow(why);
});

describe('whatever stands in the fields', () => {
  const FORMS: Record<string, { kept: string; lost: string; own: string }> = {
    '00': { kept: '100 1_ $aReedman, Amos,$d1880-1950', lost: '$aReedman, A.', own: 'abcdjq' },
    '10': { kept: '110 2_ $aWickmere Press.$bHammer Office', lost: '$aWickmere Pr', own: 'abcdgn' },
    '11': { kept: '111 2_ $aCongress of Tools', lost: '$aTool Congress', own: 'acdegnq' },
  };
  const extra = (codes: string) =>
    fc.array(fc.tuple(fc.constantFrom(...codes), fc.constantFrom('one', 'two words', 'three.', 'Four')), {
      maxLength: 4,
    });
  const aField = fc.record({
    hundred: fc.constantFrom('1', '6', '7', '8'),
    family: fc.constantFrom('00', '10', '11'),
    isLost: fc.boolean(),
    before: extra('i368'),
    title: fc.boolean(),
    mark: fc.constantFrom('', '.', ','),
    after: extra('tnpkvxyz0568eju'),
  });
  const lineOf = (f: typeof aField extends fc.Arbitrary<infer T> ? T : never) => {
    const { lost, kept } = FORMS[f.family]!;
    const name = f.isLost ? lost : kept.slice(7);
    const more = (of: [string, string][]) => of.map(([c, v]) => `$${c}${v}`).join('');
    const ind2 = f.hundred === '6' ? '0' : '_';
    return `${f.hundred}${f.family} 1${ind2} ${more(f.before)}${name}${f.mark}${f.title ? '$tTools.' : ''}${more(f.after)}`;
  };
  test('just the name is exchanged, the rest stays in its order, no lost form is left, doing it again changes nothing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('00', '10', '11'),
        fc.array(aField, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('i', 'a', 'c', ' '),
        (family, fields, isbd) => {
          const { kept, lost } = FORMS[family]!;
          const lines = fields.map(lineOf);
          const forms = mergeForms(formOf(kept), [formOf(`1${family} 1_ ${lost}`)]);
          const record = { leader: `00000nam a2200000 ${isbd} 4500`, fields: lines.map(read) };
          const once = mergeInRecord(record, forms.kept, forms.lost);
          const again = mergeInRecord(once.record, forms.kept, forms.lost);
          expect(again.record).toBe(once.record);
          // Every word that is not of the lost name is somewhere still, relators and $i and titles and all.
          const rest = (r: MarcRecord) =>
            r.fields
              .filter(isData)
              .flatMap((f) =>
                f.subfields
                  .filter((s) => !'01'.includes(s.code) && 'tpkvxyzi356'.includes(s.code))
                  .map((s) => s.code + s.value.replace(/[.,]$/, '')),
              );
          if (once.record.fields.length === record.fields.length)
            expect(rest(once.record)).toEqual(rest(record));
          else for (const word of new Set(rest(once.record))) expect(rest(record)).toContain(word);
          for (const f of once.record.fields) {
            if (!isData(f) || typeOfTag(f.tag) !== family || lines.includes(write(f))) continue;
            const text = f.subfields.map((s) => `$${s.code}${s.value}`).join('');
            expect(text).not.toMatch(/\.\.|,,|-,|,\$t|\$a\$/);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});
