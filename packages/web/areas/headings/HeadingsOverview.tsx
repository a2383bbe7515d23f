import { HEADING_INDEXES } from '@osier/core/find';
import { Link } from 'react-router';
import { BarTable } from '../../parts/BarTable';
import { Overview, OverviewSection } from '../../parts/Overview';
import { SavedSearches } from '../../parts/searches/SavedSearches';
import { RecentWork } from '../daybook/RecentWork';
import { useToday } from '../today/use-today';
import { RegistryNews } from './RegistryNews';
import { kindsName } from './heading-names';
import { headingsWords as wording } from './words';

/** What a query may name. */
const INDEXES = HEADING_INDEXES.filter((i) => !i.name.includes('.'));

/** What the pane shows when no heading and no group is opened. */
export function HeadingsOverview() {
  const { data } = useToday();
  return (
    <Overview>
      <SavedSearches of="heading" />
      <OverviewSection title={wording.authorityWork}>
        <table className="plain">
          <tbody>
            <tr>
              <td>
                <Link to="/headings?show=all">{wording.headings}</Link>
              </td>
              <td className="num">{data?.headings.toLocaleString('en-GB')}</td>
            </tr>
            <tr>
              <td>
                <Link to="/headings">{wording.groupsOfLookAlikeNames}</Link>
              </td>
              <td className="num">{data?.lookAlikes.toLocaleString('en-GB')}</td>
            </tr>
          </tbody>
        </table>
      </OverviewSection>
      <RegistryNews />
      {data?.headingKinds.length ? (
        <OverviewSection title={wording.headingsByKind}>
          <BarTable
            caption={wording.headingsByKind}
            of={wording.headings}
            rows={data.headingKinds.map(({ value, n }) => ({ key: value, name: kindsName(value), n }))}
          />
        </OverviewSection>
      ) : null}
      <OverviewSection title={wording.howToFind}>
        <p>{wording.typeWordsOrAQuery}</p>
        <ul>
          {wording.queries.map(([q, what]) => (
            <li key={q}>
              <Link to={`/headings?${new URLSearchParams({ show: 'all', q }).toString()}`}>
                <code>{q}</code>
              </Link>{' '}
              <span className="faded">{what}</span>
            </li>
          ))}
        </ul>
        <p className="faded">
          {wording.indexesAre} {INDEXES.map((i) => i.name).join(', ')}.
        </p>
      </OverviewSection>
      <OverviewSection title={wording.lookAlikes}>
        <p>{wording.openAGroupToCompare}</p>
        <p className="faded">{wording.theFormsThatAreMerged}</p>
      </OverviewSection>
      <OverviewSection title={wording.myRecentWork}>
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
