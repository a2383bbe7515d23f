import { field, type DataField, type MarcRecord } from '../marc';
import { authorityNumbers, incomingAuthority, planAuthority, type Heading, type MetHeadings } from '.';

const FIXED = '260105n||aznnnaabn           a aaa     c';
const authority = (...fields: MarcRecord['fields'][number][]): MarcRecord => ({
  leader: '00000cz  a2200000n  4500',
  fields,
});
const control = (tag: string, value: string) => ({ tag, value });
const name = (tag: string, a: string, d?: string): DataField =>
  d ? field(tag, '1 ', 'a', `${a},`, 'd', d) : field(tag, '1 ', 'a', a);
const heading = (marc: MarcRecord): Heading => ({ kind: 'personal', marc, mergedInto: null });
const NOTHING: MetHeadings = { byNumber: null, byForm: null, records: 0, clashes: [], isTwice: false };
const reedman = authority(
  control('001', 'wr1'),
  control('003', 'WickReg'),
  control('008', FIXED),
  name('100', 'Reedman, Amos', '1880-1950'),
  name('400', 'Reedman, A.'),
  field('670', '  ', 'a', 'His Tools'),
);
const onlyForm = heading({
  leader: '00000nz  a2200000n  4500',
  fields: [name('100', 'Reedman, Amos', '1880-1950')],
});

test('the numbers of an authority record are 001 with its agency, 010 and 035, cancelled ones too, each once', () => {
  const marc = authority(
    control('001', 'wr1'),
    control('003', 'WickReg'),
    field('010', '  ', 'a', 'n  79012345', 'z', 'n 80000001'),
    field('035', '  ', 'a', '(WickReg)wr1', 'z', '(WickReg)wr0'),
  );
  expect(authorityNumbers(marc)).toEqual(['(WickReg)wr1', 'n 79012345', 'n 80000001', '(WickReg)wr0']);
  expect(authorityNumbers(authority(control('001', 'wr1')))).toEqual([]);
});

test.each<[string, MarcRecord, RegExp]>([
  ['a bibliographic record', { ...reedman, leader: '00000nam a2200000 i 4500' }, /leader\/06 is a/],
  ['no heading', authority(control('008', FIXED)), /no heading \(1XX\)/],
  ['no $a', authority(field('100', '1 ', 'd', '1880-')), /does not begin with \$a/],
  ['a subdivision', authority(field('180', '  ', 'x', 'History')), /Headings of 180 are not kept here/],
  [
    'a reference record',
    authority(control('008', FIXED.replace('||a', '||b')), name('100', 'X')),
    /a reference record \(008\/09\)/,
  ],
  [
    'a subdivision record',
    authority(control('008', FIXED.replace('||a', '||d')), name('100', 'X')),
    /a subdivision record/,
  ],
])('%s cannot be taken in, and why is told', (_, marc, why) => {
  const incoming = incomingAuthority(marc);
  expect(incoming.heading).toBeNull();
  expect(planAuthority(incoming, NOTHING)).toEqual({
    outcome: 'left',
    after: null,
    note: expect.stringMatching(why) as string,
  });
});

test('a heading that is new, that only records had, that is here the same, and that has another form by now', () => {
  const incoming = incomingAuthority(reedman);
  expect(planAuthority(incoming, NOTHING)).toEqual({ outcome: 'new', after: heading(reedman), note: null });
  expect(planAuthority(incoming, { ...NOTHING, byForm: onlyForm })).toEqual({
    outcome: 'establishes',
    after: heading(reedman),
    note: null,
  });
  const later = { ...reedman, fields: [...reedman.fields, control('005', '20260101000000.0')] };
  const here = heading(later);
  expect(planAuthority(incoming, { ...NOTHING, byNumber: here, byForm: here }).outcome).toBe('same');
  const open = heading({
    ...reedman,
    fields: reedman.fields.map((f) => (f.tag === '100' ? name('100', 'Reedman, Amos', '1880-') : f)),
  });
  const changed = planAuthority(incoming, { ...NOTHING, byNumber: open });
  expect(changed.outcome).toBe('changes-form');
  expect(changed.after!.marc.fields.filter((f) => f.tag === '400')).toEqual([
    name('400', 'Reedman, A.'),
    field('400', '1 ', 'w', 'nne', 'a', 'Reedman, Amos,', 'd', '1880-'),
  ]);
});

test('what the library added to its record stays: see-froms, sources, notes', () => {
  const here = heading({
    ...reedman,
    fields: [
      ...reedman.fields,
      name('400', 'Redman, Amos'),
      field('667', '  ', 'a', 'Not the carpenter'),
      field('670', '  ', 'a', 'Letter of 1921'),
    ],
  });
  const incoming = incomingAuthority({
    ...reedman,
    fields: [...reedman.fields, name('400', 'Riedmann, Amos')],
  });
  const { outcome, after } = planAuthority(incoming, { ...NOTHING, byNumber: here, byForm: here });
  expect(outcome).toBe('updates');
  const texts = after!.marc.fields.map((f) => `${f.tag} ${'subfields' in f ? f.subfields[0]!.value : ''}`);
  expect(texts).toEqual(
    expect.arrayContaining([
      '400 Redman, Amos',
      '400 Riedmann, Amos',
      '667 Not the carpenter',
      '670 Letter of 1921',
    ]),
  );
});

test('two headings that claim one record, a circle of see-froms, and what comes twice are left; a clash is told', () => {
  const incoming = incomingAuthority(reedman);
  const other = heading(authority(name('100', 'Reedman, A.')));
  expect(planAuthority(incoming, { ...NOTHING, byNumber: other, byForm: onlyForm }).note).toMatch(
    /number is that of “Reedman, A\.”.*Merge these two first/,
  );
  const clash = (leadsBack: boolean) =>
    planAuthority(incoming, { ...NOTHING, clashes: [{ text: 'Reedman, A.', leadsBack }] });
  expect(clash(true)).toMatchObject({ outcome: 'left', note: expect.stringMatching(/a circle/) as string });
  expect(clash(false)).toMatchObject({
    outcome: 'new',
    note: expect.stringMatching(/is a heading here/) as string,
  });
  expect(planAuthority(incoming, { ...NOTHING, isTwice: true }).outcome).toBe('left');
  const undifferentiated = incomingAuthority({
    ...reedman,
    fields: reedman.fields.map((f) =>
      f.tag === '008' ? control('008', `${FIXED.slice(0, 32)}b${FIXED.slice(33)}`) : f,
    ),
  });
  expect(planAuthority(undifferentiated, NOTHING).note).toMatch(/undifferentiated/);
});

describe('a record that says what takes its place (leader 05 x, 682)', () => {
  const gone = (...notes: DataField[]) =>
    incomingAuthority({ leader: '00000xz  a2200000n  4500', fields: [...reedman.fields, ...notes] });
  const by = (...subfields: string[]) => field('682', '  ', ...subfields);
  const redman = heading(authority(name('100', 'Redman, Amos', '1880-1950')));
  const here = { ...NOTHING, byForm: onlyForm, records: 3 };

  test('is merged into that, whatever carries it, where it is here', () => {
    const incoming = gone(by('i', 'Replaced by', 'a', 'Redman, Amos, 1880-1950', '0', '(WickReg)wr2'));
    expect(incoming.replacements).toEqual([{ text: 'Redman, Amos, 1880-1950', numbers: ['(WickReg)wr2'] }]);
    const plan = planAuthority(incoming, { ...here, replacement: redman });
    expect(plan).toMatchObject({ outcome: 'replaced', note: null });
    expect(plan.after!.marc.leader[5]).toBe('x');
    expect(planAuthority(incoming, here)).toMatchObject({
      outcome: 'left',
      note: 'The record was replaced by “Redman, Amos, 1880-1950” (682), which is not here. Load that first.',
    });
    // Done before, or never here.
    expect(planAuthority(incoming, { ...NOTHING, replacement: redman }).outcome).toBe('same');
    expect(planAuthority(incoming, NOTHING).note).toMatch(/there is no such heading here/);
  });

  test('of another kind or vocabulary, and one that was split, are told and nothing is done', () => {
    const one = gone(by('a', 'Redman, Amos'));
    const body = {
      ...heading(authority(field('110', '2 ', 'a', 'Redman and Sons'))),
      kind: 'corporate' as const,
    };
    expect(planAuthority(one, { ...here, replacement: body }).note).toMatch(/cannot be merged.*two kinds/);
    const two = gone(by('i', 'Split into', 'a', 'Redman, A.', 'i', 'and', 'a', 'Redman, B.', '0', 'n2'));
    expect(two.replacements).toEqual([
      { text: 'Redman, A.', numbers: [] },
      { text: 'Redman, B.', numbers: ['n2'] },
    ]);
    expect(planAuthority(two, here).note).toMatch(/split into “Redman, A\.”, “Redman, B\.” \(682\)/);
    expect(planAuthority(two, { ...here, records: 0 }).outcome).toBe('deletes');
    // A record in force has notes of 682 as history only.
    expect(incomingAuthority({ ...reedman, fields: [...reedman.fields, by('a', 'X')] }).replacements).toEqual(
      [],
    );
  });
});

test.each(['d', 's', 'x'])(
  'a record that is deleted (leader 05 %s) takes a heading away only where no record carries it',
  (code) => {
    const gone = incomingAuthority({ ...reedman, leader: `00000${code}z  a2200000n  4500` });
    const here = heading(reedman);
    expect(planAuthority(gone, NOTHING).outcome).toBe('left');
    expect(planAuthority(gone, { ...NOTHING, byNumber: here }).outcome).toBe('deletes');
    expect(planAuthority(gone, { ...NOTHING, byNumber: here, isHeld: true })).toMatchObject({
      outcome: 'left',
      note: expect.stringMatching(/lead to the heading here/) as string,
    });
    expect(planAuthority(gone, { ...NOTHING, byNumber: here, records: 3 })).toMatchObject({
      outcome: 'left',
      note: expect.stringMatching(/3 records carry the heading/) as string,
    });
  },
);
