import type { NeighbourRow } from '@osier/contract';
import { inRounds } from '@osier/core/neighbours';
import { Link } from 'react-router';
import { Mark } from '../../parts/Mark';
import { Overview, OverviewSection } from '../../parts/Overview';
import { RecentWork } from '../daybook/RecentWork';
import { neighboursWords as wording } from './words';

/** What the pane shows while no book is looked for. */
export function NeighboursOverview({
  neighbours,
  isAtOnce,
}: {
  neighbours: readonly NeighbourRow[];
  isAtOnce: boolean;
}) {
  const rounds = inRounds(neighbours, isAtOnce);
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
            <p className="faded">{isAtOnce ? wording.allAtOnce : wording.inTurnUntilOne}</p>
            <ul className="plain-list">
              {rounds.flatMap((round, i) =>
                round.map((n) => (
                  <li key={n.id}>
                    <Mark kind={n.out ? 'caution' : 'clear'} name="" /> {isAtOnce ? '' : `${i + 1}. `}
                    {n.neighbour.name}
                    {n.out ? (
                      <span className="faded">
                        {' '}
                        · {n.out.why} {wording.leftOutUntil(timeOf(n.out.until))}
                      </span>
                    ) : null}
                  </li>
                )),
              )}
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
