import type { NeighbourRow } from '@osier/contract';
import { Link } from 'react-router';
import { Mark } from '../../parts/Mark';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';
import { neighboursWords as wording } from './words';

/** What the pane shows while no book is looked for. */
export function NeighboursOverview({
  neighbours,
  inTurn,
}: {
  neighbours: readonly NeighbourRow[];
  inTurn: boolean;
}) {
  return (
    <Overview>
      <OverviewSection title={wording.howItGoes}>
        <ol>
          {wording.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      </OverviewSection>
      <OverviewSection title={wording.whoIsAsked}>
        {neighbours.length ? (
          <>
            <p className="faded">{inTurn ? wording.inTurnUntilOne : wording.allAtOnce}</p>
            <ul className="plain-list">
              {neighbours.map((n) => (
                <li key={n.id}>
                  <Mark kind={n.out ? 'caution' : 'clear'} name="" /> {n.neighbour.name}
                  {n.out ? (
                    <span className="faded">
                      {' '}
                      · {n.out.why} {wording.leftOutUntil(timeOf(n.out.until))}
                    </span>
                  ) : null}
                </li>
              ))}
            </ul>
          </>
        ) : (
          <p>
            {wording.theHeadSetsThemUp} <Link to="/set-up?show=neighbours">{wording.setUpNeighbours}</Link>
          </p>
        )}
      </OverviewSection>
      <OverviewSection title={wording.recentWork}>
        <RecentWork />
      </OverviewSection>
    </Overview>
  );
}

const timeOf = (iso: string): string =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
