import type { DeliverySummary } from '@osier/contract';
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip);

const MOST = 10;
const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Findings by kind as the file came and as the records are now; the same numbers as a table for those who hear it. */
export default function FindingsChart({ findings }: { findings: DeliverySummary['findings'] }) {
  const shown = findings.slice(0, MOST);
  const [before, after] = [
    findings.reduce((n, f) => n + f.before, 0),
    findings.reduce((n, f) => n + f.after, 0),
  ];
  const font = { family: getComputedStyle(document.body).fontFamily, size: 13 };
  return (
    <figure className="findings-chart">
      <figcaption>
        {before === after
          ? `${before.toLocaleString('en-GB')} findings; cleaning has changed nothing yet.`
          : `${before.toLocaleString('en-GB')} findings as the file came, ${after.toLocaleString('en-GB')} now.`}
      </figcaption>
      <div style={{ height: 54 + shown.length * 30 }}>
        <Bar
          aria-label={shown.map((f) => `${f.title}: ${f.before} before, ${f.after} now`).join('; ')}
          role="img"
          data={{
            labels: shown.map((f) => f.title),
            datasets: [
              {
                label: 'as the file came',
                data: shown.map((f) => f.before),
                backgroundColor: token('--ochre'),
              },
              { label: 'now', data: shown.map((f) => f.after), backgroundColor: token('--willow') },
            ],
          }}
          options={{
            indexAxis: 'y',
            animation: false,
            maintainAspectRatio: false,
            plugins: { legend: { position: 'top', align: 'start', labels: { boxWidth: 12, font } } },
            scales: {
              x: { beginAtZero: true, ticks: { precision: 0, font }, grid: { color: token('--line') } },
              y: { ticks: { font, autoSkip: false }, grid: { display: false } },
            },
            datasets: { bar: { barPercentage: 0.9, categoryPercentage: 0.75 } },
          }}
        />
      </div>
    </figure>
  );
}
