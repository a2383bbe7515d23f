import { api } from '@osier/contract';
import dayjs from 'dayjs';
import { useApi } from '../../api/queries';
import { LazyBars } from '../../parts/charts/LazyBars';
import { stocktakeWords as wording } from './words';

/** More bars than this and they are put together by hour, then by day. */
const MOST = 36;
/** Fewer scans are no pace. */
const FEWEST = 20;
const STEPS = ['HH:mm', 'D MMM, HH:00', 'D MMM YYYY'] as const;

/** Scans by time, in steps so long that they can be read. */
export function paceOf(
  rows: readonly { readonly from: string; readonly scans: number }[],
): Map<string, number> {
  const days = new Set(rows.map((r) => dayjs(r.from).format('D')));
  for (const step of STEPS) {
    const sums = new Map<string, number>();
    for (const { from, scans } of rows) {
      const name = dayjs(from).format(step === 'HH:mm' && days.size > 1 ? 'D MMM, HH:mm' : step);
      sums.set(name, (sums.get(name) ?? 0) + scans);
    }
    if (sums.size <= MOST || step === STEPS[2]) return sums;
  }
  return new Map();
}

/** How fast a shelf was scanned; nothing until there is something to compare. */
export function PaceChart({ id }: { id: number }) {
  const { data = [] } = useApi(api.stocktakes.pace, { params: { id } });
  const pace = paceOf(data);
  const total = data.reduce((n, r) => n + r.scans, 0);
  if (pace.size < 2 || total < FEWEST) return null;
  return (
    <LazyBars
      caption={wording.paceScansAsTheyWere(total.toLocaleString('en-GB'))}
      of={wording.time}
      names={[...pace.keys()]}
      series={[{ name: 'scans', values: [...pace.values()], colour: '--willow' }]}
      isUpright
    />
  );
}
