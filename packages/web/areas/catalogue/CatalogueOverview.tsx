import { FIND_INDEXES } from '@osier/core/find';
import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { SavedSearches } from '../../parts/searches/SavedSearches';
import { RecentWork } from '../daybook/RecentWork';
import { FrequentFindings } from './FrequentFindings';
import { useToday } from '../today/use-today';
import { catalogueWords as wording } from './words';

/** Searches that run as they stand. */
const EXAMPLES = [
  ['willow hurdle', wording.wordsEachAsTheBeginning],
  ['746.41', wording.aCallNumberFromIts],
  ['record 12', wording.aRecordNumber],
  ['650$v', wording.recordsThatHaveAField],
  ['245{$b}', wording.recordsOfWhichAField],
] as const;
/** Queries that run as they stand. */
const QUERIES = [
  ['"willow and reed"', wording.aPhrase],
  ['title = "^notes on" and year >= 2000', wording.aTitleAndAYear],
  ['author all "fenn ada"', wording.wordsOfAName],
  ['subject = willow* and branch = MR', wording.aSubjectAtABranch],
  ['copies = 0 not brief = yes', wording.recordsWithoutCopies],
] as const;
/** What a query may name. */
const INDEXES = FIND_INDEXES.filter((i) => !i.name.includes('.'));

/** What the pane shows when no record is opened: how to search, what is amiss, and one's own last work. */
export function CatalogueOverview() {
  const { data } = useToday();
  return (
    <Overview>
      <SavedSearches of="record" />
      <OverviewSection title={wording.howToSearch}>
        <p>{wording.typeOrScanIntoThe}</p>
        <Searches of={EXAMPLES} />
        <p>{wording.orAQuery}</p>
        <Searches of={QUERIES} />
        <p className="faded">
          {wording.indexesAre} {INDEXES.map((i) => i.name).join(', ')}. {wording.relationsAre}
        </p>
        <p className="faded">
          {wording.inTheList} <kbd>Up</kbd> <kbd>Down</kbd> {wording.toMove} <kbd>Enter</kbd> {wording.toOpen}
        </p>
      </OverviewSection>
      {data?.findings.length ? (
        <OverviewSection title={wording.mostFrequentFindings}>
          <FrequentFindings findings={data.findings} most={6} />
        </OverviewSection>
      ) : null}
      <OverviewSection title={wording.lists}>
        <ul>
          <li>
            <Link to="/catalogue?finding=brief-record">{wording.briefRecords}</Link>
          </li>
          <li>
            <Link to="/catalogue?suppressed=yes">{wording.suppressedRecords}</Link>
          </li>
          <li>
            <Link to="/catalogue?show=links">{wording.links}</Link>
          </li>
        </ul>
      </OverviewSection>
      <OverviewSection title={wording.myRecentWork}>
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}

/** Searches to be run with one click, each with what it finds. */
const Searches = ({ of }: { of: readonly (readonly [q: string, what: string])[] }) => (
  <ul>
    {of.map(([q, what]) => (
      <li key={q}>
        <Link to={`/catalogue?q=${encodeURIComponent(q)}`}>
          <code>{q}</code>
        </Link>{' '}
        <span className="faded">{what}</span>
      </li>
    ))}
  </ul>
);
