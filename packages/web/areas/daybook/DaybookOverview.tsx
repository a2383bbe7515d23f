import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from './RecentWork';
import { daybookWords as wording } from './words';

/** What the pane shows when no entry is opened. */
export function DaybookOverview() {
  return (
    <Overview>
      <OverviewSection title={wording.entriesAndUndo}>
        <p>{wording.everythingThatChangesTheCatalogue}</p>
        <p>{wording.undoTakesAnEntryBack}</p>
        <p className="faded">
          <kbd>Alt Z</kbd> {wording.undoesYourOwnLastAct}
        </p>
      </OverviewSection>
      <OverviewSection title={wording.myEntries}>
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}
