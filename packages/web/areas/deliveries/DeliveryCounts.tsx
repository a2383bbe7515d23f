import type { DeliverySummary } from '@osier/contract';
import { OUTCOME_NAMES, OUTCOMES } from '@osier/core/matching';
import { Mark } from '../../parts/Mark';
import './deliveries.css';
import { deliveriesWords as wording } from './words';

const DONE = [
  ['added', wording.addedAsNew],
  ['replaced', 'replaced'],
  ['merged', 'merged'],
  ['copiesOnly', wording.gotCopiesOnly],
  ['skipped', 'skipped'],
] as const;

/** The numbers that must add up: read, what waits for what, what was done, copies. */
export function DeliveryCounts({ summary: s }: { summary: DeliverySummary }) {
  const waiting = OUTCOMES.filter((o) => s.waiting[o] > 0);
  const done = DONE.filter(([key]) => s.done[key] > 0);
  const n = (x: number) => x.toLocaleString('en-GB');
  const row = (label: string, count: number, mark?: 'caution' | 'stop') => (
    <tr key={label}>
      <td>
        {mark ? <Mark kind={mark} /> : null} {label}
      </td>
      <td className="num">{n(count)}</td>
    </tr>
  );
  return (
    <div className="delivery-counts">
      <table className="plain">
        <caption>{wording.recordsRead(n(s.read))}</caption>
        <tbody>
          {waiting.map((o) =>
            row(
              o === 'ask' ? wording.waitForYouToDecide : wording.to(OUTCOME_NAMES[o]),
              s.waiting[o],
              o === 'ask' ? 'caution' : undefined,
            ),
          )}
          {done.map(([key, name]) => row(name, s.done[key]))}
          {s.unreadable ? row('could not be read', s.unreadable, 'stop') : null}
        </tbody>
      </table>
      <table className="plain">
        <caption>{wording.copies}</caption>
        <tbody>
          {row('to make', s.copies.waiting)}
          {s.copies.problems ? row('of these with a problem', s.copies.problems, 'stop') : null}
          {row('made', s.copies.made)}
        </tbody>
      </table>
    </div>
  );
}
