import { afterAll as recordAfter, edited, NO_HISTORY, transactionBetween } from '@osier/core/editing';
import { field, type MarcRecord } from '@osier/core/marc';
import { leadsTo, useHistories } from './edit-histories';

const record = (...notes: string[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: notes.map((n) => field('500', '  ', 'a', n)),
});
const KEY = 'incoming 1';
const doTo = (from: MarcRecord, to: MarcRecord) => {
  const { history } = edited({ record: from, history: NO_HISTORY }, transactionBetween(from, to));
  useHistories.getState().set(KEY, history);
};
const saved = () => useHistories.getState().saved[KEY]!;
beforeEach(() => useHistories.setState({ of: {}, saved: {} }));

test('what is saved in several goes is kept as one', () => {
  const [one, two, three] = [record('a'), record('a', 'b'), record('b')];
  doTo(one, two);
  useHistories.getState().save(KEY, one);
  doTo(two, three);
  useHistories.getState().save(KEY, two);
  expect(saved().before).toBe(one);
  expect(saved().done).toHaveLength(2);
  expect(recordAfter(saved().before, saved().done)).toEqual(three);
  expect(leadsTo(saved(), three)).toBe(true);
});
test('after somebody else’s change it begins anew', () => {
  const [one, two, other, four] = [record('a'), record('b'), record('c'), record('d')];
  doTo(one, two);
  useHistories.getState().save(KEY, one);
  expect(leadsTo(saved(), other)).toBe(false);
  doTo(other, four);
  useHistories.getState().save(KEY, other);
  expect(saved().before).toBe(other);
  expect(leadsTo(saved(), four)).toBe(true);
});
test('a history that does not fit its record leads nowhere', () => {
  doTo(record('a'), record('b'));
  useHistories.getState().save(KEY, record('x', 'y'));
  expect(leadsTo(saved(), record('b'))).toBe(false);
});
