import type { DeliverySummary } from '@osier/contract';
import { LazyBars } from '../../parts/charts/LazyBars';
import { deliveriesWords as wording } from './words';

const MOST = 10;
const number = (n: number) => n.toLocaleString('en-GB');

/** Findings by kind as the file came and as the records are now. */
export function FindingsChart({ findings }: { findings: DeliverySummary['findings'] }) {
  const shown = findings.slice(0, MOST);
  const [before, after] = [
    findings.reduce((n, f) => n + f.before, 0),
    findings.reduce((n, f) => n + f.after, 0),
  ];
  return (
    <LazyBars
      caption={
        before === after
          ? wording.findingsCleaningHasChangedNothing(number(before))
          : wording.findingsAsTheFileCame(number(before), number(after))
      }
      of={wording.finding}
      names={shown.map((f) => f.title)}
      series={[
        { name: wording.asTheFileCame, values: shown.map((f) => f.before), colour: '--ochre' },
        { name: 'now', values: shown.map((f) => f.after), colour: '--willow' },
      ]}
    />
  );
}
