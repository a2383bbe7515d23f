import { Link } from 'react-router';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useStocktakes } from './use-stocktakes';

const SHOWN = 8;

/** What the pane shows when no stocktake is opened: how one goes, and the last ones with their results. */
export function StocktakeOverview() {
  const { data = [] } = useStocktakes();
  return (
    <Overview>
      <OverviewSection title="How a stocktake goes">
        <ol>
          <li>Choose a stretch of shelf: branch, locations, call numbers from and to.</li>
          <li>Scan it with the phone page (Walk), or load the file of a hand scanner.</li>
          <li>Settle the findings: not on the shelf, out of order, wrong branch, not known.</li>
          <li>Close it. Its result is kept.</li>
        </ol>
      </OverviewSection>
      {data.length ? (
        <OverviewSection title="Last stocktakes">
          <table className="plain">
            <thead>
              <tr>
                <th>Name</th>
                <th>State</th>
                <th className="num">Found</th>
                <th className="num">Expected</th>
              </tr>
            </thead>
            <tbody>
              {data.slice(0, SHOWN).map((s) => (
                <tr key={s.id}>
                  <td>
                    <Link to={`/stocktake/${s.id}`}>{s.stocktake.name}</Link>
                  </td>
                  <td>{s.stocktake.state}</td>
                  <td className="num">{s.found.toLocaleString('en-GB')}</td>
                  <td className="num">{s.expected.toLocaleString('en-GB')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </OverviewSection>
      ) : null}
    </Overview>
  );
}
