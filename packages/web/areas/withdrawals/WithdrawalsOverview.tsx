import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';
import { withdrawalsWords as wording } from './words';

/** What the pane shows when no list is opened: how a withdrawal goes, and one's own last work. */
export function WithdrawalsOverview() {
  return (
    <Overview>
      <OverviewSection title={wording.howCopiesAreWithdrawn}>
        <ol>
          <li>{wording.startAListItsName}</li>
          <li>{wording.scanTheCopiesOrPaste}</li>
          <li>{wording.checkTheCautionsStoppedCopies}</li>
          <li>{wording.theHeadConfirmsTheCopies}</li>
        </ol>
        <p className="faded">
          {wording.aListThatWasConfirmed} <Link to="/daybook">{wording.daybook}</Link>.
        </p>
      </OverviewSection>
      <OverviewSection title={wording.register}>
        <p>
          {wording.everyCopyThatWasWithdrawn} <Link to="/withdrawals?show=register">{wording.register2}</Link>
          .
        </p>
      </OverviewSection>
      <OverviewSection title={wording.myRecentWork}>
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
