import { RULES_14 } from '../testing/barcode-rules';
import { rollNumber, type LabelRoll } from '../barcodes';
import type { CodeLists, ProposedCopy } from '../holdings';
import { field, type MarcRecord } from '../marc';
import {
  DEFAULT_SETTINGS,
  settingsProblems,
  sheetFor,
  sheetProblems,
  withBarcodeProblems,
  type DeliverySettings,
  type SupplierSheet,
} from '.';

const sheet = (name: string, more: Partial<SupplierSheet> = {}): SupplierSheet => ({
  ...DEFAULT_SETTINGS,
  name,
  files: [],
  organisations: [],
  ...more,
});
const lists: CodeLists = {
  branches: [{ code: 'MR', name: 'Millrace' }],
  locations: [{ code: 'OPEN', name: 'Open shelves', branch: 'MR' }],
  types: [{ code: 'BK', name: 'Book', price: 1800 }],
  funds: [{ code: 'GEN', name: 'General' }],
  suppliers: [{ code: 'TP', name: 'Tallow & Pike' }],
};
const context = { lists, rolls: [], recipes: ['house-style'] };

describe('the sheet that fits', () => {
  const sheets = [
    sheet('Any', { files: ['*.mrc'] }),
    sheet('Tallow', { files: ['tallow-*.mrc', 'TP*'] }),
    sheet('Reedling', { organisations: ['Reed'] }),
  ];
  const by = (code: string): MarcRecord => ({
    leader: '00000nam a2200000 i 4500',
    fields: [field('040', '  ', 'a', code)],
  });
  test.each([
    ['tallow-2026-11.mrc', [], 'Tallow', 'tallow-*.mrc'],
    ['tp991.xml', [], 'Tallow', 'TP*'],
    ['november.mrc', [], 'Any', '*.mrc'],
    ['november.xml', [by('Reed')], 'Reedling', 'Reed'],
    ['november.mrc', [by('Reed')], 'Any', '*.mrc'],
  ])('%s', (name, records, expected, why) => {
    const found = sheetFor(name, records, sheets)!;
    expect(found.sheet.name).toBe(expected);
    expect(found.why).toContain(why);
  });
  test.each(['november.xml', 'x-tallow-1.mrcx'])('none for %s', (name) =>
    expect(sheetFor(name, [by('Other')], sheets)).toBeNull(),
  );
});

describe('what cannot be saved', () => {
  const problems = (more: Partial<DeliverySettings>) =>
    settingsProblems({ ...DEFAULT_SETTINGS, ...more }, context).map((p) => `${p.field}: ${p.message}`);
  test.each<[string, Partial<DeliverySettings>, RegExp]>([
    ['a rule without points', { rule: { ...DEFAULT_SETTINGS.rule, points: [] } }, /^rule: .*at least one/],
    [
      'replace without a match',
      { actions: { one: 'ask', several: 'ask', none: 'replace' } },
      /^actions.none/,
    ],
    [
      'replace with several',
      { actions: { one: 'ask', several: 'replace', none: 'add' } },
      /^actions.several/,
    ],
    ['a recipe that is gone', { recipe: '99' }, /^recipe: .*deleted/],
    ['a roll that is gone', { roll: 3 }, /^roll: .*deleted/],
    ['a tag that is none', { protectedFields: ['59'] }, /^protectedFields: “59”/],
    [
      'a location that was removed',
      { defaults: { ...DEFAULT_SETTINGS.defaults, branch: 'MR', location: 'BENCH' } },
      /^defaults.location: “BENCH” is not a location here. Nearest: OPEN/,
    ],
    [
      'small letters',
      { defaults: { ...DEFAULT_SETTINGS.defaults, type: 'bk' } },
      /^defaults.type: “bk” is not a type here/,
    ],
    [
      'a fund in small letters',
      { defaults: { ...DEFAULT_SETTINGS.defaults, fund: 'gen' } },
      /^defaults.fund: “gen” is not a fund here. Nearest: GEN/,
    ],
    [
      'a supplier that is not on the list',
      { defaults: { ...DEFAULT_SETTINGS.defaults, supplier: 'Tallow' } },
      /^defaults.supplier: “Tallow” is not a supplier here/,
    ],
    [
      'a table into a fund that is not there',
      { mapping: { ...DEFAULT_SETTINGS.mapping, tables: { fund: { A1: 'HOLT' } } } },
      /^mapping.tables.fund: For their A1/,
    ],
    [
      'a table into a code that is not there',
      { mapping: { ...DEFAULT_SETTINGS.mapping, tables: { type: { DVD: 'VI' } } } },
      /^mapping.tables.type: For their DVD/,
    ],
    [
      'copies without a place',
      { defaults: { ...DEFAULT_SETTINGS.defaults, copies: 1 } },
      /^defaults.branch: Copies are added/,
    ],
  ])('%s', (_, more, said) => expect(problems(more).join('\n')).toMatch(said));
  test('the defaults are sound', () => expect(problems({})).toEqual([]));
  test('a name and a pattern are given once', () => {
    const others = [sheet('Tallow', { files: ['t*'] })];
    expect(sheetProblems(sheet('Tallow', { files: ['t*'] }), context, others).map((p) => p.field)).toEqual([
      'name',
      'files',
    ]);
  });
});

describe('barcodes that records bring', () => {
  const roll = (name: string, from: number, supplier: string): LabelRoll => ({
    name,
    prefix: '31204',
    from,
    to: from + 99,
    length: 14,
    check: true,
    supplier,
  });
  const ours = { ...roll('Workroom', 100, ''), spoiled: ['120-121'] };
  const theirs = roll('Reedling', 500, 'Reedling Ltd');
  const copy = (barcode: string) => ({ barcode, problems: [] as string[] }) as unknown as ProposedCopy;
  const checked = (copies: readonly ProposedCopy[], own: LabelRoll | null) =>
    withBarcodeProblems(copies, {
      rules: RULES_14,
      roll: own,
      rolls: [ours, theirs],
      takenBy: (b) => (b === rollNumber(ours, 110) ? 'Eels' : null),
      withdrawnFrom: (b) => (b === rollNumber(ours, 112) ? 'It was on “Eels”, withdrawn.' : null),
      seenIn: (b) => (b === rollNumber(ours, 111) ? 7 : null),
    });
  const told = (barcodes: string[], own: LabelRoll | null) =>
    checked(barcodes.map(copy), own).map((c) => c.problems.join(' '));
  test.each<[string, string[], LabelRoll | null, RegExp[]]>([
    ['of their own roll', [rollNumber(theirs, 501)], theirs, [/^$/]],
    ['of a roll for another', [rollNumber(theirs, 501)], null, [/reserved for Reedling Ltd/]],
    ['not of the roll that is reserved', [rollNumber(ours, 101)], theirs, [/is not of the roll “Reedling”/]],
    ['taken', [rollNumber(ours, 110)], null, [/is already on “Eels”/]],
    ['of a withdrawn copy', [rollNumber(ours, 112)], null, [/It was on “Eels”, withdrawn/]],
    ['spoiled', [rollNumber(ours, 121)], null, [/is marked as spoiled in the label roll “Workroom”/]],
    ['before in the file', [rollNumber(ours, 111)], null, [/already in record 7 of this file/]],
    [
      'twice in one record',
      [rollNumber(ours, 101), rollNumber(ours, 101)],
      null,
      [/^$/, /twice in this record/],
    ],
    ['misprinted', ['31204000000010'], null, [/check digit/]],
    ['none, with a roll', [''], ours, [/^$/]],
    ['none, without', [''], null, [/no label roll is chosen/]],
  ])('%s', (_, barcodes, own, said) => {
    const found = told(barcodes, own);
    said.forEach((pattern, i) => expect(found[i]).toMatch(pattern));
  });
  test('what was given up or is odd may be used on purpose; what is taken, or somebody else’s, may not', () => {
    const meant = [rollNumber(ours, 112), rollNumber(ours, 121), '31204000000010'];
    const not = [rollNumber(ours, 110), rollNumber(theirs, 501)];
    const tell = (barcodes: string[]) =>
      checked(
        barcodes.map((b) => ({ ...copy(b), keepBarcode: true })),
        null,
      ).map((c) => c.problems.length);
    expect([tell(meant), tell(not)]).toEqual([
      [0, 0, 0],
      [1, 1],
    ]);
  });
});
