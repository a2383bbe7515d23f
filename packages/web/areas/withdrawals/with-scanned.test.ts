import type { WithdrawalList, WithdrawalRow } from '@osier/contract';
import { pauseOfList, withoutScan, withScanned } from './with-scanned';

const row = (scan: number, code: string, more: Partial<WithdrawalRow> = {}): WithdrawalRow => ({
  ...{ code, candidate: null, verdict: 'stop', reasons: [], lastAtBranch: false, lastAnywhere: false },
  ...{ again: false, overrulable: false, scan, pulled: null, callNumber: '', place: '', near: [] },
  ...{ shelfKey: '', loans: null, lastLoan: '' },
  ...more,
});
const list = (verdicts: WithdrawalRow[]): WithdrawalList => ({
  ...{
    id: 1,
    name: 'T',
    branch: 'MR',
    reason: '',
    state: 'open',
    codes: verdicts.length,
    by: '',
    madeOn: '',
  },
  ...{ version: 1, loansDesk: true, verdicts },
});

test('a new scan stands at the end; the verdict on one that stands takes its place; one is taken off', () => {
  const before = list([row(1, 'a'), row(2, 'b')]);
  const after = withScanned(before, [row(2, 'b', { pulled: true }), row(3, 'c')]);
  expect(after.verdicts.map((v) => [v.scan, v.pulled])).toEqual([
    [1, null],
    [2, true],
    [3, null],
  ]);
  expect(after.codes).toBe(3);
  expect(withoutScan(after, 2).verdicts.map((v) => v.scan)).toEqual([1, 3]);
  expect(before.verdicts).toHaveLength(2);
});

test('a short list is read again at once, a long one waits the longer the more it holds', () => {
  const of = (n: number) => pauseOfList({ verdicts: Array.from({ length: n }, (_, i) => row(i, 'x')) });
  expect([of(0), of(299)]).toEqual([0, 0]);
  expect(of(5000)).toBeGreaterThan(of(1000));
});
