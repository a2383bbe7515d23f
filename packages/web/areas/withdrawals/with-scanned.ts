import type { WithdrawalList, WithdrawalRow } from '@osier/contract';

/** Rows of a list from which on it is not read again after every scan, and milliseconds that a row costs then. */
const [MANY, EACH] = [300, 2];

/** How long a list waits until it is read again after a change, in milliseconds. */
export const pauseOfList = ({ verdicts }: Pick<WithdrawalList, 'verdicts'>): number =>
  verdicts.length < MANY ? 0 : verdicts.length * EACH;

/** A list with the verdicts of new scans, until it is read again: those on what stands there already take its place. */
export function withScanned(list: WithdrawalList, rows: readonly WithdrawalRow[]): WithdrawalList {
  const fresh = new Map(rows.map((r) => [r.scan, r]));
  const stood = list.verdicts.map((v) => {
    const now = fresh.get(v.scan);
    fresh.delete(v.scan);
    return now ?? v;
  });
  return { ...list, codes: list.codes + fresh.size, verdicts: [...stood, ...fresh.values()] };
}

/** A list without a scan. */
export const withoutScan = (list: WithdrawalList, scan: number): WithdrawalList => ({
  ...list,
  verdicts: list.verdicts.filter((v) => v.scan !== scan),
});
