import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';

/** What the pane shows when no list is opened: how a withdrawal goes, and one's own last work. */
export function WithdrawalsOverview() {
  return (
    <Overview>
      <OverviewSection title="How copies are withdrawn">
        <ol>
          <li>Start a list: its name, its branch, the reason.</li>
          <li>Scan the copies, or paste their barcodes. Each gets a verdict: clear, caution or stop.</li>
          <li>Look at the cautions; what is stopped stays out.</li>
          <li>The head confirms. The copies leave the catalogue and stand in the register.</li>
        </ol>
        <p className="faded">
          A list that was confirmed can be undone from the <Link to="/daybook">Daybook</Link>.
        </p>
      </OverviewSection>
      <OverviewSection title="Register">
        <p>
          Every copy that was withdrawn, with its title, call number and reason, in the{' '}
          <Link to="/withdrawals?show=register">register</Link>.
        </p>
      </OverviewSection>
      <OverviewSection title="My recent work">
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
