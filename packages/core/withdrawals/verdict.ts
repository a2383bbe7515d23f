import type { LoanState } from '../holdings';

/** What is known of a scanned copy when its withdrawal is weighed. */
export interface Candidate {
  readonly copyId: number;
  readonly holdingId: number;
  readonly recordId: number;
  readonly title: string;
  readonly branch: string;
  readonly status: string;
  /** Due date when it is on loan, '' when it is not, null when the loans desk could not be asked. */
  readonly due: string | null;
  /** What the loans desk says of it. */
  readonly loan: LoanState;
}

/** What the loans desk says that a person should look at before the copy goes. */
const TOLD: readonly LoanState[] = ['on order', 'in process', 'claimed returned', 'lost', 'missing'];

/** How many copies of the title stand at its branch and anywhere, before the list. */
export interface CopyCounts {
  readonly atBranch: number;
  readonly anywhere: number;
}

export type VerdictKind = 'clear' | 'caution' | 'stop';

/** Why a copy must not go, or should be looked at twice. */
export interface Reason {
  readonly code:
    | 'not-ours'
    | 'scanned-twice'
    | 'on-loan'
    | 'loan-unknown'
    | 'on-hold'
    | 'loans-desk'
    | 'other-branch'
    | 'lost'
    | 'in-process'
    | 'in-transit'
    | 'reserved'
    | 'last-at-branch'
    | 'last-anywhere'
    | 'withdrawn-before';
  readonly verdict: 'caution' | 'stop';
  readonly message: string;
}

/** What is said of one code of a list. */
export interface Verdict {
  readonly code: string;
  readonly candidate: Candidate | null;
  readonly verdict: VerdictKind;
  readonly reasons: readonly Reason[];
  readonly lastAtBranch: boolean;
  readonly lastAnywhere: boolean;
}

/** A code of a list with the copy that has it. */
export interface Listed {
  readonly code: string;
  readonly candidate: Candidate | null;
  /** A sentence when the code is unknown but can be explained: withdrawn before, a near miss. */
  readonly hint?: string;
  readonly withdrawnBefore?: boolean;
}

/**
 * Weighs a withdrawal list in the order of its scans. Copies that may go are counted off as they come, so that the
 * scan that takes the last copy at a branch, or anywhere, is the one that says so.
 * `branch` is the branch whose copies the list is for.
 */
export function weighWithdrawals(
  list: readonly Listed[],
  branch: string,
  counts: (c: Candidate) => CopyCounts,
  branchName: (code: string) => string,
): Verdict[] {
  const seen = new Set<string>();
  const gone = new Map<string, number>();
  const take = (key: string) => {
    gone.set(key, (gone.get(key) ?? 0) + 1);
    return gone.get(key)!;
  };
  return list.map(({ code, candidate, hint, withdrawnBefore }): Verdict => {
    const reasons: Reason[] = [];
    const stop = (c: Reason['code'], message: string) => reasons.push({ code: c, verdict: 'stop', message });
    const caution = (c: Reason['code'], message: string) =>
      reasons.push({ code: c, verdict: 'caution', message });
    if (seen.has(code)) stop('scanned-twice', 'Scanned twice on this list; it counts once.');
    seen.add(code);
    if (!candidate) {
      if (withdrawnBefore) stop('withdrawn-before', hint ?? 'Already withdrawn.');
      else if (reasons.length === 0)
        stop('not-ours', hint ? `No copy has this barcode. ${hint}` : 'No copy has this barcode.');
      return { code, candidate, verdict: 'stop', reasons, lastAtBranch: false, lastAnywhere: false };
    }
    if (candidate.branch !== branch)
      stop(
        'other-branch',
        `Belongs to ${branchName(candidate.branch)}, this list is for ${branchName(branch)}.`,
      );
    if (candidate.due) stop('on-loan', `On loan, due ${candidate.due}.`);
    if (candidate.due === null)
      caution('loan-unknown', 'The loans desk did not answer: whether it is on loan is not known.');
    if (candidate.loan === 'on the hold shelf')
      stop('on-hold', 'On the hold shelf: it is waiting for a reader.');
    if (candidate.loan === 'in transit') stop('in-transit', 'In transit, as the loans desk says.');
    if (TOLD.includes(candidate.loan)) caution('loans-desk', `The loans desk has it as ${candidate.loan}.`);
    if (candidate.status === 'in transit' && candidate.loan !== 'in transit')
      stop('in-transit', 'In transit between branches.');
    if (candidate.status === 'in process')
      caution('in-process', 'Recorded in process: it has not been on the shelf yet.');
    if (candidate.status === 'reserved') stop('reserved', 'On reserve for a reader or a course.');
    if (candidate.status === 'lost')
      caution('lost', 'Recorded lost: once it is withdrawn it cannot be returned any more.');
    let lastAtBranch = false;
    let lastAnywhere = false;
    if (!reasons.some((r) => r.verdict === 'stop')) {
      const have = counts(candidate);
      lastAnywhere = take(`record ${candidate.recordId}`) === have.anywhere;
      lastAtBranch = take(`record ${candidate.recordId} ${candidate.branch}`) === have.atBranch;
      if (lastAnywhere)
        caution(
          'last-anywhere',
          'The last copy anywhere: holding and record go too, and the union catalogue must be told.',
        );
      else if (lastAtBranch) caution('last-at-branch', `The last copy at ${branchName(candidate.branch)}.`);
    }
    const verdict = reasons.some((r) => r.verdict === 'stop') ? 'stop' : reasons.length ? 'caution' : 'clear';
    return { code, candidate, verdict, reasons, lastAtBranch, lastAnywhere };
  });
}
