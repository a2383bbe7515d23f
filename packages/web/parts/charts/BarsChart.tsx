import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import { useIsDark } from '../../styles/Themed';
import './charts.css';
import { partWords as wording } from '../words';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip);

/** A row of bars of one colour, one for each name. */
export interface BarSeries {
  readonly name: string;
  readonly values: readonly number[];
  /** A colour of the look: `--willow`. */
  readonly colour: '--willow' | '--ochre' | '--woad' | '--edge-strong';
}

const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const number = (n: number) => n.toLocaleString('en-GB');

/** Bars by name, side by side or stacked, lying or standing; the same numbers stand behind it as a table. */
export default function BarsChart({
  caption,
  of,
  names,
  series,
  isStacked = false,
  isUpright = false,
}: {
  caption: string;
  /** What the names are: the head of their column in the table. */
  of: string;
  names: readonly string[];
  series: readonly BarSeries[];
  isStacked?: boolean;
  isUpright?: boolean;
}) {
  // The colours are those of the look that is on.
  const isDark = useIsDark();
  const font = { family: getComputedStyle(document.body).fontFamily, size: 13 };
  const ticks = { font, color: token('--ink') };
  const counts = {
    beginAtZero: true,
    stacked: isStacked,
    ticks: { ...ticks, precision: 0 },
    grid: { color: token('--line') },
  };
  const labels = { stacked: isStacked, ticks: { ...ticks, autoSkip: isUpright }, grid: { display: false } };
  return (
    <figure className="bars-chart">
      <figcaption>{caption}</figcaption>
      <div style={{ height: isUpright ? 200 : 54 + names.length * 30 }} aria-hidden>
        <Bar
          key={String(isDark)}
          data={{
            labels: [...names],
            datasets: series.map((s) => ({
              label: s.name,
              data: [...s.values],
              backgroundColor: token(s.colour),
            })),
          }}
          options={{
            indexAxis: isUpright ? 'x' : 'y',
            animation: false,
            maintainAspectRatio: false,
            plugins: {
              legend: {
                display: series.length > 1,
                position: 'top',
                align: 'start',
                labels: { boxWidth: 12, font, color: token('--ink') },
              },
            },
            scales: isUpright ? { x: labels, y: counts } : { x: counts, y: labels },
            datasets: { bar: { barPercentage: 0.9, categoryPercentage: 0.75 } },
          }}
        />
      </div>
      <details>
        <summary>{wording.asATable}</summary>
        <table className="plain">
          <thead>
            <tr>
              <th>{of}</th>
              {series.map((s) => (
                <th key={s.name} className="num">
                  {s.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {names.map((name, i) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {series.map((s) => (
                  <td key={s.name} className="num">
                    {number(s.values[i] ?? 0)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
