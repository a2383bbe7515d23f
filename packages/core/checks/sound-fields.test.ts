import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { DEFAULT_HOUSE, type HouseRules } from '../house';
import { field, isData, readIso2709, writeIso2709, type MarcRecord } from '../marc';
import { anyRecord } from '../testing/records';
import { checkerFor, CHECKS, checkRecord } from '.';
import type { Finding } from './finding';
import { viewOf } from './take-apart';

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

/** The record as it is read from a file that has it several times, behind others: its fields come to be the same values. */
const others = Array.from({ length: 40 }, () => writeIso2709(demo[0]!));
const metAgain = (record: MarcRecord): MarcRecord[] => {
  const bytes = writeIso2709(record);
  const read = readIso2709(Buffer.concat([...others, bytes, bytes, bytes]));
  return read.slice(others.length).map((r) => r.record!);
};

test('what was sound before is passed over, and nothing that is wrong ever is', () => {
  let told = 0;
  const checkers = new Map(houses.map((house) => [house, checkerFor(house)]));
  fc.assert(
    fc.property(fc.oneof(mixed, mixed, anyRecord), fc.constantFrom(...houses), (record, house) => {
      const checker = checkers.get(house)!;
      for (const read of metAgain(record)) {
        const all = findAll(read, house);
        told += all.length;
        expect(asSet(checker.check(read))).toEqual(asSet(all));
      }
    }),
    { numRuns: 800 },
  );
  expect(told).toBeGreaterThan(1000);
});

test('many records at once give what each gives alone', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(mixed, anyRecord), { maxLength: 60 }),
      fc.constantFrom(...houses),
      (all, house) => {
        expect(checkerFor(house).checkAll(all)).toEqual(all.map((r) => checkRecord(r, house)));
      },
    ),
    { numRuns: 60 },
  );
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

test('a field is looked at again when the house rules are others', () => {
  const read = metAgain({
    leader: '00000nam a2200000 i 4500',
    fields: [field('650', ' 0', 'a', 'Reeds', 'v', 'Fiction.')],
  });
  const rules = (house: HouseRules) =>
    checkerFor(house)
      .checkAll(read)
      .map((found) => found.map((f) => f.rule));
  const dropped = expect.arrayContaining(['deleted-subdivision']) as string[];
  for (const found of rules(DEFAULT_HOUSE)) expect(found).not.toEqual(dropped);
  for (const found of rules(houses[1])) expect(found).toEqual(dropped);
  for (const found of rules(DEFAULT_HOUSE)) expect(found).not.toEqual(dropped);
});
