import type { SettleItem, Settlement } from '@osier/core/stocktake';
import type { Services } from '../services';
import type { LoanAnswers } from '../loans/ports';
import type { ToSettle } from './to-settle';

/** Copies about which the loans desk is asked for one review. */
const ASKED = 500;
const RETURNS: Settlement = 'return';
const isFound = (act: Settlement): boolean => act === 'mark-found' || act === 'mark-found-tell';

/** Asks the loans desk about copies that are found again or returned, as they stand now; null without a desk. */
export async function askOfSettling(
  { loans }: Services,
  items: readonly ToSettle[],
): Promise<LoanAnswers | null> {
  if (!loans.configured) return null;
  const codes = items.flatMap(({ act, finding }) => (act === RETURNS || isFound(act) ? [finding.code] : []));
  return loans.ask(codes.slice(0, ASKED), { anew: true });
}

/** What is to be known of a copy before it is settled so, by its status and by what the loans desk says; null for nothing. */
export function deskSays(
  { act, finding }: ToSettle,
  item: SettleItem | undefined,
  said: LoanAnswers | null,
): string | null {
  const answer = said?.of(finding.code);
  if (act === RETURNS) {
    if (!answer || answer.state === 'not known')
      return 'The loans desk does not answer. It is told as soon as it does.';
    return answer.state === 'on loan'
      ? null
      : `The loans desk has it as ${answer.state}: there may be nothing to return.`;
  }
  if (!isFound(act) || (item?.copy.value.status !== 'lost' && !answer?.charge)) return null;
  const known = !answer || answer.state === 'not known' ? null : answer;
  const desk = known?.charge
    ? `The loans desk has it as ${known.state}, with a charge of ${known.charge}.`
    : known
      ? `The loans desk has it as ${known.state}, without a charge.`
      : said
        ? 'The loans desk does not answer: whether a reader was billed is not known.'
        : '';
  return [finding.message, desk].filter(Boolean).join(' ');
}
