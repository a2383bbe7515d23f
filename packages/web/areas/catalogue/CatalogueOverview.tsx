import { Link } from 'react-router';
import { BarTable } from '../../parts/BarTable';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';
import { useSetUp } from '../setup/use-set-up';
import { useToday } from '../today/use-today';

/** Searches that run as they stand. */
const EXAMPLES = [
  ['willow hurdle', 'words, each as the beginning of one'],
  ['746.41', 'a call number, from its beginning'],
  ['record 12', 'a record number'],
  ['650$v', 'records that have a field or subfield'],
  ['245{$b}', 'records of which a field has a subfield'],
] as const;

/** What the pane shows when no record is opened: how to search, what is amiss, and one's own last work. */
export function CatalogueOverview() {
  const { data } = useToday();
  const checks = useSetUp()?.checks;
  const findings = (data?.findings ?? []).slice(0, 6).map(({ value, n }) => ({
    key: value,
    name: checks?.find((c) => c.rule === value)?.title ?? value,
    n,
    to: `/catalogue?finding=${encodeURIComponent(value)}`,
  }));
  return (
    <Overview>
      <OverviewSection title="How to search">
        <p>Type or scan into the line at the top. A barcode, an ISBN or a record number opens its record.</p>
        <ul>
          {EXAMPLES.map(([q, what]) => (
            <li key={q}>
              <Link to={`/catalogue?q=${encodeURIComponent(q)}`}>
                <code>{q}</code>
              </Link>{' '}
              <span className="faded">{what}</span>
            </li>
          ))}
        </ul>
        <p className="faded">
          In the list: <kbd>Up</kbd> <kbd>Down</kbd> to move, <kbd>Enter</kbd> to open.
        </p>
      </OverviewSection>
      {findings.length ? (
        <OverviewSection title="Most frequent findings">
          <BarTable caption="Records by finding" of="Records" rows={findings} />
        </OverviewSection>
      ) : null}
      <OverviewSection title="My recent work">
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
