import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from './RecentWork';

/** What the pane shows when no entry is opened. */
export function DaybookOverview() {
  return (
    <Overview>
      <OverviewSection title="Entries and Undo">
        <p>
          Everything that changes the catalogue is an entry, with what it changed. Open one at the left to see
          it before and after.
        </p>
        <p>
          Undo takes an entry back after a review. What somebody has changed since is named there and left as
          it is.
        </p>
        <p className="faded">
          <kbd>Alt Z</kbd> undoes your own last act from anywhere.
        </p>
      </OverviewSection>
      <OverviewSection title="My entries">
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
