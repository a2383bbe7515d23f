import { checkerFor } from '@osier/core/checks';
import { applyTransaction } from '@osier/core/editing';
import { DEFAULT_HOUSE } from '@osier/core/house';
import { field, type MarcRecord } from '@osier/core/marc';
import { fixNow } from './live-findings';

const short = field('020', '  ', 'a', '0306406152');
const title = field('245', '00', 'a', 'Eels.');
const record = (...fields: MarcRecord['fields']): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '008', value: '261128s2024    enk           000 0 eng d' }, ...fields],
});
const found = record(short, title);
const lacking = checkerFor(DEFAULT_HOUSE)
  .check(found)
  .find((f) => f.where.field === 1 && f.fix?.safe)!;
const isbns = (r: MarcRecord) =>
  r.fields.flatMap((f) => (f.tag === '020' && 'subfields' in f ? f.subfields.map((s) => s.value) : []));

test('a fix is done where its field stands by now', () => {
  const now = record(field('010', '  ', 'a', '2024000001'), field('015', '  ', 'a', 'x'), short, title);
  const fixed = applyTransaction(now, fixNow(lacking, found, now)!);
  expect(isbns(fixed)).toEqual(['9780306406157', '0306406152']);
  expect(fixed.fields.filter((f) => f.tag !== '020')).toEqual(now.fields.filter((f) => f.tag !== '020'));
});
test('in the record that it was found in, it is what the check proposes', () =>
  expect(isbns(applyTransaction(found, fixNow(lacking, found, found)!))).toEqual([
    '9780306406157',
    '0306406152',
  ]));
test('of a field that is replaced, edited or gone, nothing else is changed', () => {
  const replaced = found.fields.findIndex((f) => f.tag === '245');
  const other = { ...lacking, fix: { ...lacking.fix!, edits: [{ op: 'remove', at: replaced } as const] } };
  expect(fixNow(other, found, record(short, field('245', '00', 'a', 'Reeds.')))).toBeNull();
  expect(fixNow(other, found, record(short))).toBeNull();
});
test('a finding without a fix has none', () =>
  expect(fixNow({ ...lacking, fix: undefined }, found, found)).toBeNull());
