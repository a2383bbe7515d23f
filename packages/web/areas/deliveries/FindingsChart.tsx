import type { DeliverySummary } from '@osier/contract';
import { LazyBars } from '../../parts/charts/LazyBars';

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
          ? `${number(before)} findings; cleaning has changed nothing yet.`
          : `${number(before)} findings as the file came, ${number(after)} now.`
      }
      of="Finding"
      names={shown.map((f) => f.title)}
      series={[
        { name: 'as the file came', values: shown.map((f) => f.before), colour: '--ochre' },
        { name: 'now', values: shown.map((f) => f.after), colour: '--willow' },
      ]}
    />
  );
}
