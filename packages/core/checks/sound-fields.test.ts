import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { DEFAULT_HOUSE, type HouseRules } from '../house';
import { field, isData, readIso2709, type MarcRecord } from '../marc';
import { anyRecord } from '../testing/records';
import { CHECKS, checkRecord } from '.';
import type { Finding } from './finding';
import { viewOf } from './view';

/** What every check finds in the whole record, with nothing remembered. */
function findAll(record: MarcRecord, house: HouseRules): Omit<Finding, 'fix'>[] {
  const view = viewOf(record);
  return CHECKS.flatMap((check) => {
    const found: Omit<Finding, 'fix'>[] = [];
    if (!house.checksOff.includes(check.rule) && (check.formats ?? ['bibliographic']).includes(view.format))
      check.run(view, (f) => found.push({ rule: check.rule, ...f }), house);
    return found;
  });
}
const asSet = (found: readonly Omit<Finding, 'fix'>[]) =>
  found.map(({ rule, severity, where, message }) => JSON.stringify([rule, severity, where, message])).sort();

const demo = readdirSync('demo/files')
  .filter((name) => name.endsWith('.mrc'))
  .flatMap((name) => readIso2709(readFileSync(`demo/files/${name}`)).flatMap((r) => r.record ?? []));
const pool = demo.flatMap((r) => r.fields.filter(isData));
const controls = demo.flatMap((r) => r.fields.filter((f) => f.tag === '008'));
const houses = [
  DEFAULT_HOUSE,
  { ...DEFAULT_HOUSE, punctuation: 'left out', thesauri: ['mesh'], droppedSubdivisions: ['Fiction'] },
  { ...DEFAULT_HOUSE, checksOff: ['end-mark', 'brackets'] },
] as const satisfies readonly HouseRules[];
/** Records put together from the fields of the demo files, so that the same fields come again beside others. */
const mixed = fc
  .tuple(
    fc.constantFrom(...demo.map((r) => r.leader)),
    fc.constantFrom(' ', 'a', 'i', 'c'),
    fc.constantFrom(...controls),
    fc.constantFrom('eng', 'ger', 'fre', '   '),
    fc.array(fc.constantFrom(...pool), { minLength: 4, maxLength: 25 }),
  )
  .map(([leader, form, fixed, language, fields]): MarcRecord => {
    const value = (fixed as { value: string }).value;
    return {
      leader: leader.slice(0, 18) + form + leader.slice(19),
      fields: [{ tag: '008', value: value.slice(0, 35) + language + value.slice(38) }, ...fields],
    };
  });

test('what was sound before is passed over, and nothing that is wrong ever is', () => {
  let told = 0;
  fc.assert(
    fc.property(fc.oneof(mixed, mixed, anyRecord), fc.constantFrom(...houses), (record, house) => {
      const all = findAll(record, house);
      told += all.length;
      expect(asSet(checkRecord(record, house))).toEqual(asSet(all));
    }),
    { numRuns: 1500 },
  );
  expect(told).toBeGreaterThan(1000);
});

test('the findings come worst first, then by place, then in the order of the checks', () => {
  const weight = { error: 0, warning: 1, advice: 2 };
  const order = new Map(CHECKS.map((c, i) => [c.rule, i]));
  for (const record of [...demo, ...demo]) {
    const found = checkRecord(record, DEFAULT_HOUSE);
    const keys = found.map((f) => [weight[f.severity], f.where.field, order.get(f.rule)!]);
    expect(keys).toEqual([...keys].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]! || a[2]! - b[2]!));
  }
});

test('one text that holds the sign between subfields is not taken for two subfields', () => {
  const record = (...pairs: string[]): MarcRecord => ({
    leader: '00000nam a2200000 i 4500',
    fields: [field('500', '  ', ...pairs)],
  });
  const rules = (r: MarcRecord) => checkRecord(r, DEFAULT_HOUSE).map((f) => f.rule);
  expect(rules(record('a', 'Reeds.', 'a', 'Rushes.'))).not.toContain('control-character');
  expect(rules(record('a', 'Reeds.\u001faRushes.'))).toContain('control-character');
});

test('a field is looked at again when the house rules are others', () => {
  const record: MarcRecord = {
    leader: '00000nam a2200000 i 4500',
    fields: [field('650', ' 0', 'a', 'Reeds', 'v', 'Fiction.')],
  };
  const rules = (house: HouseRules) => checkRecord(record, house).map((f) => f.rule);
  expect(rules(DEFAULT_HOUSE)).not.toContain('dropped-subdivision');
  expect(rules(houses[1])).toContain('dropped-subdivision');
  expect(rules(DEFAULT_HOUSE)).not.toContain('dropped-subdivision');
});
