import { foundSays, type SettleItem, type Settlement } from '@osier/core/stocktake';
import type { Services } from '../services';
import type { LoanAnswers } from '../loans/ports';
import type { ToSettle } from './to-settle';

/** Copies about which the loans desk is asked for one review. */
const ASKED = 500;
const RETURNS: Settlement = 'return';
const isFound = (act: Settlement): boolean => act === 'mark-found' || act === 'mark-found-tell';

/** What the loans desk says of those copies about which it was asked. */
export interface DeskAnswers {
  readonly answers: LoanAnswers;
  readonly asked: ReadonlySet<string>;
}

/** Asks the loans desk about copies that are found again or returned, as they stand now; null without a desk. */
export async function askOfSettling(
  { loans }: Services,
  items: readonly ToSettle[],
): Promise<DeskAnswers | null> {
  if (!loans.configured) return null;
  const codes = items.flatMap(({ act, finding }) => (act === RETURNS || isFound(act) ? [finding.code] : []));
  const asked = new Set(codes.slice(0, ASKED));
  return { answers: await loans.ask([...asked], { anew: true }), asked };
}

/** What is to be known of a copy before it is settled so, by its status and by what the loans desk says; null for nothing. */
export function deskSays(
  { act, finding }: ToSettle,
  item: SettleItem | undefined,
  said: DeskAnswers | null,
): string | null {
  if (said && !said.asked.has(finding.code) && (act === RETURNS || isFound(act)))
    return `${finding.message} The loans desk was not asked again: it is asked about ${ASKED} at once.`;
  const answer = said?.answers.of(finding.code);
  if (act === RETURNS) {
    if (!answer || answer.state === 'not known')
      return 'The loans desk does not answer. It is told as soon as it does.';
    if (answer.state !== 'on loan')
      return `The loans desk has it as ${answer.state}: there may be nothing to return.`;
    // That it may have been lent since it was scanned.
    return finding.message === foundSays('on loan') ? null : finding.message;
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
