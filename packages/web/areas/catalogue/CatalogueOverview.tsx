import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';
import { FrequentFindings } from './FrequentFindings';
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
      {data?.findings.length ? (
        <OverviewSection title="Most frequent findings">
          <FrequentFindings findings={data.findings} most={6} />
        </OverviewSection>
      ) : null}
      <OverviewSection title="My recent work">
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
