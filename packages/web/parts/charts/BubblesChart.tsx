import { BubbleController, Chart, Legend, LinearScale, PointElement, Tooltip } from 'chart.js';
import { Bubble } from 'react-chartjs-2';
import { useIsDark } from '../../styles/Themed';
import './charts.css';

Chart.register(BubbleController, LinearScale, PointElement, Legend, Tooltip);

/** A circle: where it stands, and how much it is of. */
export interface Bubbled {
  readonly x: number;
  readonly y: number;
  readonly of: number;
}
/** Circles of one colour. */
export interface BubbleSeries {
  readonly name: string;
  readonly bubbles: readonly Bubbled[];
  /** A colour of the look. */
  readonly colour: '--willow' | '--ochre';
}

const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
/** Radius of the largest circle, in pixels; areas are as the numbers. */
const LARGEST = 14;

/** Circles on two scales, the larger the more they are of. */
export default function BubblesChart({
  caption,
  across,
  up,
  series,
}: {
  caption: string;
  /** What the scales are of. */
  across: string;
  up: { readonly title: string; readonly tick: (value: number) => string };
  series: readonly BubbleSeries[];
}) {
  // The colours are those of the look that is on.
  const isDark = useIsDark();
  const font = { family: getComputedStyle(document.body).fontFamily, size: 13 };
  const ticks = { font, color: token('--ink'), precision: 0 };
  const most = Math.max(1, ...series.flatMap((s) => s.bubbles.map((b) => b.of)));
  const radius = (of: number) => Math.max(2, LARGEST * Math.sqrt(of / most));
  const scale = (title: string) => ({
    title: { display: true, text: title, color: token('--ink'), font },
    grid: { color: token('--line') },
    grace: '6%',
  });
  return (
    <figure className="bars-chart">
      <figcaption>{caption}</figcaption>
      <div style={{ height: 320 }} aria-hidden>
        <Bubble
          key={String(isDark)}
          data={{
            datasets: series.map((s) => ({
              label: s.name,
              data: s.bubbles.map(({ x, y, of }) => ({ x, y, r: radius(of), of })),
              backgroundColor: `${token(s.colour)}b0`,
              borderColor: token(s.colour),
            })),
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            plugins: {
              legend: {
                position: 'top',
                align: 'start',
                labels: { boxWidth: 12, font, color: token('--ink') },
              },
            },
            scales: {
              // A year is no amount: it has no thousands.
              x: { ...scale(across), ticks: { ...ticks, callback: String } },
              y: { ...scale(up.title), ticks: { ...ticks, callback: (value) => up.tick(Number(value)) } },
            },
          }}
        />
      </div>
    </figure>
  );
}
