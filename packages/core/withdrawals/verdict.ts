import type { WithdrawalLimits } from '../house';
import { priceText, type LoanState } from '../holdings';
import type { Candidate, CopyCounts, Listed } from './candidate';

/** What the loans desk says that a person should look at before the copy goes. */
const TOLD: readonly LoanState[] = ['on order', 'in process', 'claimed returned', 'lost', 'missing'];

export type VerdictKind = 'clear' | 'caution' | 'stop';

/** Why a copy must not go, or should be looked at twice. */
export const REASON_CODES = [
  ...(['not-ours', 'withdrawn-before', 'other-branch', 'on-loan', 'on-hold', 'in-transit'] as const),
  ...(['reserved', 'on-other-list', 'scanned-twice', 'loan-unknown', 'loans-desk', 'lost'] as const),
  ...(['in-process', 'last-anywhere', 'last-at-branch', 'last-of-set', 'last-of-heading'] as const),
  ...(['protected', 'expensive', 'recent'] as const),
] as const;
export type ReasonCode = (typeof REASON_CODES)[number];

/** Stops that the head may overrule with a reason: the copy is in the hand, and what stands against it can be known to be over. */
export const OVERRULABLE: readonly ReasonCode[] = [
  ...(['other-branch', 'in-transit', 'reserved', 'on-other-list'] as const),
];

/** One thing that is said against a withdrawal. */
export interface Reason {
  readonly code: ReasonCode;
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
  /** The same code stands further up: it counts once. */
  readonly again: boolean;
  /** All that stops it may be overruled by the head. */
  readonly overrulable: boolean;
}

/** By what a list is weighed. */
export interface WeighTerms {
  /** The branch whose copies the list is for. */
  readonly branch: string;
  readonly branchName: (code: string) => string;
  readonly counts: (c: Candidate) => CopyCounts;
  readonly limits: WithdrawalLimits;
  /** Today (ISO date). */
  readonly on: string;
  /** ISO 4217 code of the library's currency, in which the limits are. */
  readonly currency: string;
}

/**
 * Weighs a withdrawal list in the order of its scans. Copies that may go are counted off as they come, so that the scan that takes the last
 * copy at a branch, of a part, or anywhere, is the one that says so. A part of a list is weighed alike as long as all scans of a title are in it.
 */
export function weighWithdrawals(list: readonly Listed[], terms: WeighTerms): Verdict[] {
  const seen = new Set<string>();
  const gone = new Map<string, number>();
  const take = (key: string) => {
    gone.set(key, (gone.get(key) ?? 0) + 1);
    return gone.get(key)!;
  };
  return list.map((listed): Verdict => {
    const { code, candidate } = listed;
    const again = seen.has(code);
    seen.add(code);
    const no = { code, candidate, lastAtBranch: false, lastAnywhere: false, again, overrulable: false };
    if (!candidate) return { ...no, verdict: 'stop', reasons: [unknown(listed)] };
    if (again) return { ...no, verdict: 'caution', reasons: [AGAIN] };
    const reasons = [...stops(candidate, terms), ...cautions(candidate, terms)];
    const stopping = reasons.filter((r) => r.verdict === 'stop');
    if (stopping.length)
      return {
        ...no,
        ...{ verdict: 'stop', reasons },
        overrulable: stopping.every((r) => OVERRULABLE.includes(r.code)),
      };
    const have = terms.counts(candidate);
    const { recordId, branch, part } = candidate;
    const lastAnywhere = take(`record ${recordId}`) === have.anywhere;
    const lastAtBranch = take(`record ${recordId} ${branch}`) === have.atBranch;
    const lastOfPart = have.ofPart > 0 && take(`part ${recordId} ${part}`) === have.ofPart;
    const last = lastOnes(candidate, terms, have, { lastAnywhere, lastAtBranch, lastOfPart });
    const all = [...last, ...reasons];
    return {
      ...no,
      ...{ verdict: all.length ? 'caution' : 'clear', reasons: all, lastAtBranch, lastAnywhere },
    };
  });
}

const stop = (code: ReasonCode, message: string): Reason => ({ code, verdict: 'stop', message });
const caution = (code: ReasonCode, message: string): Reason => ({ code, verdict: 'caution', message });
const AGAIN = caution('scanned-twice', 'Scanned twice on this list; it counts once.');

function unknown({ hint, withdrawnBefore }: Listed): Reason {
  if (withdrawnBefore) return stop('withdrawn-before', hint ?? 'Already withdrawn.');
  return stop('not-ours', hint ? `No copy has this barcode. ${hint}` : 'No copy has this barcode.');
}

/** What keeps a copy from going. */
function stops(c: Candidate, { branch, branchName }: WeighTerms): Reason[] {
  const found: (Reason | false)[] = [
    c.branch !== branch &&
      stop('other-branch', `Belongs to ${branchName(c.branch)}, this list is for ${branchName(branch)}.`),
    Boolean(c.due) && stop('on-loan', `On loan, due ${c.due}.`),
    c.loan === 'on the hold shelf' && stop('on-hold', 'On the hold shelf: it is waiting for a reader.'),
    c.loan === 'in transit'
      ? stop('in-transit', 'In transit, as the loans desk says.')
      : c.status === 'in transit' && stop('in-transit', 'In transit between branches.'),
    c.status === 'reserved' && stop('reserved', 'On reserve for a reader or a course.'),
    c.onList !== '' && stop('on-other-list', `On the open list “${c.onList}” as well.`),
  ];
  return found.filter((r) => r !== false);
}

/** What a person looks at before it goes. */
function cautions(c: Candidate, { limits, on, currency }: WeighTerms): Reason[] {
  const { priceAbove, youngerThan, locations } = limits;
  const expensive = tooExpensive(c, priceAbove, currency);
  const found: (Reason | false)[] = [
    c.due === null &&
      caution('loan-unknown', 'The loans desk did not answer: whether it is on loan is not known.'),
    TOLD.includes(c.loan) &&
      caution('loans-desk', `The loans desk has it as ${c.loan}. ${chargeSays(c.loan)}`.trim()),
    c.status === 'in process' &&
      caution('in-process', 'Recorded in process: it has not been on the shelf yet.'),
    c.status === 'lost' &&
      caution(
        'lost',
        'Recorded lost: once it is withdrawn it cannot be returned. Settle a charge at the loans desk first.',
      ),
    locations.includes(c.location) && caution('protected', `${c.locationName} is kept: look before it goes.`),
    c.keptBy !== '' && caution('protected', `Field ${c.keptBy} of its record marks it as one to keep.`),
    expensive !== null && caution('expensive', expensive),
    c.acquired !== '' &&
      c.acquired > monthsBefore(on, youngerThan) &&
      caution('recent', `Acquired on ${c.acquired}, less than ${youngerThan} months ago.`),
  ];
  return found.filter((r) => r !== false);
}

/** Why it is looked at for its price; a price in another currency than the limit's is always looked at. */
function tooExpensive({ price, currency }: Candidate, above: number | null, house: string): string | null {
  if (above === null || price === null) return null;
  if (currency && currency !== house)
    return `It cost ${priceText(price, currency)}, which cannot be held against ${priceText(above, house)}.`;
  return price > above ? `It cost ${priceText(price, house)}, more than ${priceText(above, house)}.` : null;
}

const chargeSays = (state: LoanState): string =>
  state === 'claimed returned' || state === 'lost'
    ? 'A reader may have been charged: settle that there first.'
    : '';

/** What is said of the copy that is the last one. */
function lastOnes(
  c: Candidate,
  { branchName }: WeighTerms,
  have: CopyCounts,
  is: { readonly lastAnywhere: boolean; readonly lastAtBranch: boolean; readonly lastOfPart: boolean },
): Reason[] {
  const heading = have.headings[0];
  if (is.lastAnywhere)
    return [
      caution('last-anywhere', 'The last copy anywhere: the union catalogue must be told.'),
      ...(heading === undefined
        ? []
        : [
            caution(
              'last-of-heading',
              have.headings.length === 1
                ? `No other record has the heading ${heading}.`
                : `No other record has the headings ${heading} and ${have.headings.length - 1} more.`,
            ),
          ]),
    ];
  return [
    ...(is.lastAtBranch ? [caution('last-at-branch', `The last copy at ${branchName(c.branch)}.`)] : []),
    ...(is.lastOfPart ? [caution('last-of-set', `The only copy of ${c.part}: the set would lack it.`)] : []),
  ];
}

/** The day so many months before a day (ISO dates); the last of its month where there is none such. */
export function monthsBefore(day: string, months: number): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  const first = new Date(Date.UTC(year, month - 1 - months, 1));
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  first.setUTCDate(Math.min(date, last));
  return first.toISOString().slice(0, 10);
}
