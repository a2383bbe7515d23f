import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';
import { useToday } from '../today/use-today';

/** What the pane shows when no heading and no group is opened. */
export function HeadingsOverview() {
  const { data } = useToday();
  return (
    <Overview>
      <OverviewSection title="Authority work">
        <table className="plain">
          <tbody>
            <tr>
              <td>
                <Link to="/headings?show=all">Headings</Link>
              </td>
              <td className="num">{data?.headings.toLocaleString('en-GB')}</td>
            </tr>
            <tr>
              <td>
                <Link to="/headings">Groups of look-alike names</Link>
              </td>
              <td className="num">{data?.lookAlikes.toLocaleString('en-GB')}</td>
            </tr>
          </tbody>
        </table>
      </OverviewSection>
      <OverviewSection title="Look-alikes">
        <p>
          Open a group to compare the names, their dates and their titles. Choose the form to keep and merge
          the others into it, or record that they are different people; they are then not offered again.
        </p>
        <p className="faded">The forms that are merged away become see-froms of the kept form.</p>
      </OverviewSection>
      <OverviewSection title="My recent work">
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
