import { field, lineOf, type MarcRecord } from '../marc';
import { mergePlan, withSeeFroms, type Heading } from '.';
import { asReplaced, withLostNumbers } from './replaced';

const authority = (...fields: MarcRecord['fields']): MarcRecord => ({
  leader: '00000nz  a2200000n  4500',
  fields,
});
const kept = authority(
  field('010', '  ', 'a', 'n 1'),
  field('100', '1 ', 'a', 'Holt, Ada,', 'd', '1871-1940'),
);
const lost = authority(
  { tag: '001', value: '77' },
  field('010', '  ', 'a', 'n 2', 'z', 'n 3'),
  field('035', '  ', 'a', '(Wick)77'),
  field('100', '1 ', 'a', 'Holt, A.'),
  field('400', '1 ', 'a', 'Fenn, Ada'),
  field('670', '  ', 'a', 'Eels, 1900'),
);

// MARC 21 Format for Authority Data: leader 05, 010 and 035 $z, tracings $w, 682.
test('the kept record answers to the numbers of the lost one, each once', () => {
  const out = withLostNumbers(kept, [lost, lost]);
  expect(out.fields.map((f) => lineOf(f))).toEqual([
    expect.stringContaining('$an 1$zn 2$zn 3'),
    expect.stringContaining('$z(Wick)77'),
    lineOf(kept.fields[1]!),
  ]);
  expect(withLostNumbers(kept, [kept])).toBe(kept);
});
test('the lost record is deleted and replaced, and says by what', () => {
  const out = asReplaced(lost, kept);
  expect([out.leader[5], out.fields.at(-1)]).toEqual([
    'x',
    field('682', '  ', 'i', 'Replaced by', 'a', 'Holt, Ada, 1871-1940', '0', 'n 1'),
  ]);
});
test('its form is a see-from, an earlier heading where it was established', () => {
  const froms = (of: MarcRecord) =>
    withSeeFroms(kept, [of])
      .fields.slice(2)
      .map((f) => lineOf(f));
  expect(froms(lost)).toEqual([
    expect.stringContaining('$wnne$aHolt, A.'),
    expect.stringContaining('$aFenn, Ada'),
  ]);
  const plain = authority(field('100', '1 ', 'a', 'Holt, A.'));
  expect(froms(plain)[0]).not.toContain('$w');
});
test('a merge does all of it', () => {
  const at = (id: number, marc: MarcRecord) => ({
    id,
    version: 1,
    value: { kind: 'personal', marc, mergedInto: null } as Heading,
  });
  const { headings } = mergePlan(at(1, kept), [at(2, lost)], []);
  expect(headings.map((c) => [c.id, c.after?.mergedInto, c.after?.marc.leader[5]])).toEqual([
    [1, null, 'n'],
    [2, 1, 'x'],
  ]);
});
